import { stationAtX } from "@true-spine/core/blade/station.ts";
import type { ReactNode } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, usePurpose, useRail } from "../../blade/screen.ts";
import { Numbers } from "../../rail/Numbers.tsx";
import { Rail } from "../../rail/Rail.tsx";
import { Section } from "../../rail/Section.tsx";
import type { SidePlace } from "../../rail/SideView.tsx";
import { numbersAt } from "../../rail/scribe-numbers.ts";
import { WholeFigures } from "./WholeFigures.tsx";

/** The strips, with a page's own handles on them, and beside them the section, the numbers and the page's own controls. */
export function BladeStrips({
  handles,
  children,
}: {
  handles: (place: SidePlace) => ReactNode;
  children: ReactNode;
}) {
  return (
    // A tablet held upright has the drawing above and the controls below it, in two columns.
    <div className="flex min-h-0 flex-1 max-lg:portrait:flex-col">
      <div className="min-w-0 flex-1 max-lg:portrait:min-h-[55%]">
        <Rail handles={handles} />
      </div>
      <aside
        aria-label="At the scribe, and controls"
        className="w-84 shrink-0 overflow-y-auto border-l border-rule bg-room max-lg:portrait:w-full max-lg:portrait:shrink"
      >
        <div className="flex flex-col gap-1.5 max-lg:portrait:block max-lg:portrait:columns-2 max-lg:portrait:gap-1.5 max-lg:portrait:*:mb-1.5 max-lg:portrait:*:break-inside-avoid">
          <AtScribe />
          <WholeFigures />
          {children}
        </div>
      </aside>
    </div>
  );
}

function AtScribe() {
  const file = useFile();
  const scribe = useRail((state) => state.scribe);
  const unit = useSettings((settings) => settings.unit);
  const purpose = usePurpose();
  const ghost = useRail((state) => state.ghost);
  const field = fieldOf(file);
  const station = stationAtX(field, scribe);
  return (
    <>
      <Section file={file} x={scribe} station={station} />
      <Numbers rows={numbersAt(field, scribe, station, unit, purpose, ghost && fieldOf(ghost.file))} />
    </>
  );
}
