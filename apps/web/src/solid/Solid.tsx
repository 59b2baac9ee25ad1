import type { Mesh } from "@true-spine/core/blade/mesh.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { proxy, wrap } from "comlink";
import { lazy, Suspense, useEffect, useState } from "react";
import { useSettings } from "../app/settings.ts";
import { useFile } from "../blade/screen.ts";
import { PlainButton, Question } from "../parts/Dialog.tsx";
import type { Meshing } from "../workers/mesh.worker.ts";
import { THICKNESS_GRADIENT } from "./colours.ts";

const Scene = lazy(() => import("./Scene.tsx").then((module) => ({ default: module.Scene })));

/** The same blade in three dimensions, coloured by thickness: meshed in a worker that can be stopped. */
export function Solid({ onClose }: { onClose: () => void }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const { mesh, share, failed } = useMesh(file);
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
        {canDraw && failed && (
          <p role="alert" className="p-6">
            The blade could not be meshed. That is a defect in the program; the blade itself is sound and
            saved.
          </p>
        )}
        {canDraw && !mesh && !failed && (
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

function useMesh(file: Blade) {
  const [state, setState] = useState<{ mesh: Mesh | null; share: number; failed: boolean }>({
    mesh: null,
    share: 0,
    failed: false,
  });
  useEffect(() => {
    const worker = new Worker(new URL("../workers/mesh.worker.ts", import.meta.url), { type: "module" });
    let isGone = false;
    setState({ mesh: null, share: 0, failed: false });
    wrap<Meshing>(worker)
      .mesh(
        file,
        proxy((share: number) => {
          if (!isGone) setState((now) => ({ ...now, share }));
        }),
      )
      .then((mesh) => !isGone && setState({ mesh, share: 1, failed: false }))
      .catch(() => !isGone && setState({ mesh: null, share: 0, failed: true }));
    return () => {
      isGone = true;
      worker.terminate();
    };
  }, [file]);
  return state;
}
