import { laid } from "@true-spine/core/photo/place.ts";
import { memo } from "react";
import { useDocument } from "../blade/screen.ts";
import type { SidePlace } from "./side-place.ts";

/** The photo kept with this blade, at the blade's own scale, under its lines. */
export const PhotoUnder = memo(function PhotoUnder({ place }: { place: SidePlace }) {
  const { picture } = useDocument("photo");
  const where = useDocument("photoPlace");
  if (!picture) return null;
  const { a, b, c, d, e, f } = laid(where);
  const k = place.scale.perMm;
  const matrix = [k * a, -k * b, k * c, -k * d, place.px(e), place.py(f)];
  return (
    <image
      href={picture.data}
      width={picture.width}
      height={picture.height}
      opacity={where.strength}
      transform={`matrix(${matrix.join(" ")})`}
      pointerEvents="none"
    />
  );
});
