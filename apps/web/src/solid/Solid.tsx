import type { Mesh } from "@true-spine/core/blade/mesh.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { proxy, type Remote } from "comlink";
import { Suspense } from "react";
import { useSettings } from "../app/settings.ts";
import { useFile } from "../blade/screen.ts";
import { later } from "../parts/later.ts";
import { PlainButton } from "../parts/PlainButton.tsx";
import { Question } from "../parts/Question.tsx";
import { useWork } from "../workers/useWork.ts";
import { WorkTrouble } from "../workers/WorkTrouble.tsx";
import type { Workers } from "../workers/workers.ts";
import { THICKNESS_GRADIENT } from "./colours.ts";

const Scene = later(async () => (await import("./Scene.tsx")).Scene);

/** The same blade in three dimensions, coloured by thickness: meshed in a worker that can be stopped. */
export function Solid({ onClose }: { onClose: () => void }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const { answer, trouble, tryAgain } = useWork("mesh", file, meshed);
  const { mesh, share } = answer?.to === file ? answer.value : { mesh: null, share: 0 };
  const thickest = Math.max(...file.thickness.map((row) => row.t));
  const canDraw = hasWebGl();
  return (
    <Question title={`${file.name}, by thickness`} isOpen onClose={onClose} wide>
      <div className="relative h-[56vh] overflow-hidden rounded bg-layout text-scribed">
        {!canDraw && (
          <p role="alert" className="p-6">
            This browser offers no WebGL, so the blade cannot be drawn in three dimensions here. Side view,
            sections and numbers show the same steel.
          </p>
        )}
        {canDraw && (
          <div className="bg-sheet p-2 empty:hidden">
            <WorkTrouble what="The solid" trouble={trouble} onTry={tryAgain} />
          </div>
        )}
        {canDraw && !mesh && !trouble && (
          <div className="p-6">
            <p id="meshing">Meshing the blade …</p>
            <progress aria-labelledby="meshing" className="mt-3 w-64" value={share} max={1} />
          </div>
        )}
        {canDraw && mesh && (
          <Suspense fallback={<p className="p-6">Setting the scene …</p>}>
            <Scene mesh={mesh} thickest={thickest} />
          </Suspense>
        )}
      </div>
      <div className="mt-3 flex items-center gap-4 text-sm">
        <div
          className="flex-1"
          role="img"
          aria-label={`Thickness from nothing to ${showLengthWithUnit(thickest, unit)}`}
        >
          <div className="h-3 rounded" style={{ background: THICKNESS_GRADIENT }} />
          <div aria-hidden className="mt-1 flex justify-between">
            {[0, 0.25, 0.5, 0.75, 1].map((part) => (
              <span key={part}>{showLengthWithUnit(thickest * part, unit)}</span>
            ))}
          </div>
        </div>
        <PlainButton onClick={onClose}>{mesh ? "Close" : "Stop"}</PlainButton>
      </div>
    </Question>
  );
}

function hasWebGl(): boolean {
  try {
    return document.createElement("canvas").getContext("webgl2") !== null;
  } catch {
    return false;
  }
}

interface Meshed {
  readonly mesh: Mesh | null;
  readonly share: number;
}

async function meshed(
  remote: Remote<Workers["mesh"]>,
  file: Blade,
  tell: (meshed: Meshed) => void,
): Promise<void> {
  let mesh: Mesh | null = null;
  // What is told of the way comes by a port of its own: the last of it may come after the mesh.
  const onProgress = proxy((share: number) => {
    if (!mesh) tell({ mesh: null, share });
  });
  mesh = await remote.mesh(file, onProgress);
  tell({ mesh, share: 1 });
}
