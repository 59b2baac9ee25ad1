import { laid, remarked, shifted, toBlade } from "@true-spine/core/photo/place.ts";
import { useRef } from "react";
import { useDocument, useRail, useScreen } from "../../blade/screen.ts";
import { Grip } from "../../rail/Grip.tsx";
import type { SidePlace } from "../../rail/side-place.ts";

/** What a photo is taken hold of by while it is being laid: two marks that settle its scale, and the whole of it. */
export function PhotoHandles({ place }: { place: SidePlace }) {
  const { open } = useScreen();
  const { picture } = useDocument("photo");
  const where = useDocument("photoPlace");
  const isLaying = useRail((state) => state.isLayingPhoto);
  const start = useRef(where);
  if (!picture || !isLaying) return null;
  const { px, py, scale } = place;
  const take = (isStart: boolean) => {
    if (isStart) start.current = open.store.getState().photoPlace;
  };
  const [one, two] = where.marks;
  const middle = toBlade(laid(where), [(one.photo[0] + two.photo[0]) / 2, (one.photo[1] + two.photo[1]) / 2]);
  return (
    <g>
      <line
        x1={px(one.blade[0])}
        y1={py(one.blade[1])}
        x2={px(two.blade[0])}
        y2={py(two.blade[1])}
        stroke="var(--color-scribe)"
        strokeDasharray="3 3"
        pointerEvents="none"
      />
      <Grip
        x={px(middle[0])}
        y={py(middle[1])}
        perMm={scale.perMm}
        label="The photo"
        onMove={(dx, dy, isStart) => {
          take(isStart);
          if (dx !== 0 || dy !== 0) open.put({ photoPlace: shifted(start.current, dx, dy) });
        }}
      />
      {([0, 1] as const).map((index) => {
        const at = where.marks[index].blade;
        return (
          <Grip
            key={index}
            shape="round"
            x={px(at[0])}
            y={py(at[1])}
            perMm={scale.perMm}
            label={`Mark ${index + 1} on the photo`}
            onMove={(dx, dy, isStart) => {
              take(isStart);
              if (dx === 0 && dy === 0) return;
              const from = start.current.marks[index].blade;
              open.put({ photoPlace: remarked(start.current, index, [from[0] + dx, from[1] + dy]) });
            }}
          />
        );
      })}
    </g>
  );
}
