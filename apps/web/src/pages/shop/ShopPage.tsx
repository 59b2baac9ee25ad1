import { useMe } from "../../api/door.ts";
import { useTitle } from "../../parts/useTitle.ts";
import { CopiesPanel } from "./CopiesPanel.tsx";
import { DevicesTable } from "./DevicesTable.tsx";
import { DoorPanel } from "./DoorPanel.tsx";
import { HistoryPanel } from "./HistoryPanel.tsx";
import { TroublesPanel } from "./TroublesPanel.tsx";

/** The shop's own house-keeping: which tablets are let in and what they may do, and copies of everything. */
export function ShopPage() {
  useTitle("Shop");
  const { role } = useMe();
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-3 border-b border-rule bg-paper px-5">
        <h1 className="text-[17px] font-bold">Shop</h1>
      </header>
      <div className="min-h-0 flex-1 overflow-auto px-5 py-4">
        {role === "desk" ? (
          <>
            <DoorPanel />
            <DevicesTable />
            <CopiesPanel />
            <HistoryPanel />
            <TroublesPanel />
          </>
        ) : (
          <p>Devices are let in and shut out at the desk, the machine that True Spine runs on.</p>
        )}
      </div>
    </div>
  );
}
