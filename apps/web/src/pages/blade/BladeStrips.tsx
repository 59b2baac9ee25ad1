import { stationAtX } from "@true-spine/core/blade/station.ts";
import type { ReactNode } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, usePurpose, useRail } from "../../blade/screen.ts";
import { Workspace } from "../../parts/Workspace.tsx";
import { Numbers } from "../../rail/Numbers.tsx";
import { Rail } from "../../rail/Rail.tsx";
import { Section } from "../../rail/Section.tsx";
import { numbersAt } from "../../rail/scribe-numbers.ts";
import type { SidePlace } from "../../rail/side-place.ts";
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
    <Workspace
      asideLabel="At the scribe, and controls"
      aside={
        <>
          <AtScribe />
          <WholeFigures />
          {children}
        </>
      }
    >
      <Rail handles={handles} />
    </Workspace>
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
