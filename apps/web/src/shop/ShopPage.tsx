import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { ReactNode } from "react";
import { Alert } from "../parts/Alert.tsx";
import { download } from "../parts/download.ts";
import { FileBox } from "../parts/FileBox.tsx";
import { PlainButton } from "../parts/PlainButton.tsx";
import { UnitMenu } from "../parts/UnitMenu.tsx";
import { Workspace } from "../parts/Workspace.tsx";
import type { Saving } from "../saving/saving.ts";
import { ShopConflict } from "./ShopConflict.tsx";
import { ShopRefused, ShopSaved } from "./ShopSaved.tsx";

/** A page of something that the shop keeps: whether it is saved, a file of it in and out, the work, and what is chosen beside it. */
export function ShopPage({
  title,
  saving,
  file,
  onTake,
  more,
  why,
  asideLabel,
  aside,
  children,
}: {
  title: string;
  saving: Saving<Shop>;
  /** What its file holds; null while there is nothing to write out. */
  file: object | null;
  onTake: (file: File) => Promise<void>;
  more?: ReactNode;
  /** Why the last change was not taken. */
  why: string | null;
  asideLabel: string;
  aside: ReactNode;
  children: ReactNode;
}) {
  const name = title.toLowerCase();
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-3 border-b border-rule bg-paper px-5">
        <h1 className="text-[17px] font-bold">{title}</h1>
        <span className="flex-1 text-sm text-faint">
          <ShopSaved saving={saving} />
        </span>
        <UnitMenu />
        <FileBox
          label={`${title} file`}
          words={`Take ${name} in`}
          accept=".json,application/json"
          onPick={(picked) => void onTake(picked)}
        />
        {file && (
          <PlainButton
            onClick={() => download(name, ".json", `${JSON.stringify(file, null, 2)}\n`, "application/json")}
          >
            {title} file
          </PlainButton>
        )}
        {more}
      </header>
      <ShopRefused saving={saving} />
      <Workspace asideLabel={asideLabel} aside={aside}>
        <section
          aria-label={`${title}, all of them`}
          // What is only looked at is scrolled by keys too.
          // biome-ignore lint/a11y/noNoninteractiveTabindex: there may be nothing else in it that takes the focus.
          tabIndex={0}
          className="min-h-0 flex-1 overflow-y-auto bg-sheet px-4 py-3"
        >
          {why && <Alert className="mb-2">{why}</Alert>}
          {children}
        </section>
      </Workspace>
      <ShopConflict />
    </div>
  );
}
