import { stationOn } from "@true-spine/core/blade/second-station.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { sideWords, spotKey } from "@true-spine/core/inspect/schema.ts";
import { stageName } from "@true-spine/core/route/stages.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { X } from "lucide-react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useDocument, useFile, useScreen } from "../../blade/screen.ts";
import { NumberBox } from "../../parts/Box.tsx";
import { Group } from "../../parts/Group.tsx";

/** What is wanted beside the geometry, and the maker's own places. */
export function PlacesGroup({ stage }: { stage: string }) {
  const { open } = useScreen();
  const file = useFile();
  const check = useDocument("check");
  const route = useDocument("route");
  const unit = useSettings((settings) => settings.unit);
  const put = (part: Partial<typeof check>) => {
    const now = open.store.getState().check;
    open.end();
    open.put({ check: { ...now, ...part } });
  };
  return (
    <Group title="Wanted, and places of your own">
      <div className="flex items-center justify-between gap-2 text-sm text-faint">
        <span>Hardness wanted, HRC</span>
        <span className="text-right">
          <NumberBox
            label="Hardness wanted, HRC"
            value={check.hardness ?? 0}
            least={20}
            most={70}
            onChange={(hardness) => put({ hardness })}
          />
        </span>
      </div>
      {check.places.map((spot) => {
        const x = (spot.u === undefined ? spot.x : stationOn(fieldOf(file), spot)?.x) ?? 0;
        return (
          <p key={spotKey(spot)} className="flex items-center gap-2 text-xs">
            <span className="min-w-0 flex-1">
              {QUANTITY[spot.what].name}
              {sideWords(spot)} at {showLength(x, unit, unit === "mm" ? 0 : undefined)}
            </span>
            <button
              type="button"
              aria-label="Remove this place"
              className="rounded p-1 hover:bg-room"
              onClick={() => put({ places: check.places.filter((one) => spotKey(one) !== spotKey(spot)) })}
            >
              <X className="size-4" aria-hidden />
            </button>
          </p>
        );
      })}
      <p className="text-xs text-faint">
        Double-click the blade, or press P at the scribe, to add a place to read after “
        {stageName(route, stage)}”.
      </p>
    </Group>
  );
}
