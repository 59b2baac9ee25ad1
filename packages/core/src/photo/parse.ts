import { faultsOf } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { type Photo, type PhotoPlace, PhotoPlaceSchema, PhotoSchema } from "./schema.ts";

const photoShape = validatorOf(PhotoSchema);
const placeShape = validatorOf(PhotoPlaceSchema);

/** How near two marks may lie, in pixels or mm: nearer, they say nothing of the scale. */
const NEAREST = 1;

/** A sound photo, or every fault found with its path. Never throws. */
export function parsePhoto(
  value: unknown,
): { ok: true; photo: Photo } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(photoShape, value);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, photo: value as Photo };
}

/** A sound place for a photo, or every fault found with its path. Never throws. */
export function parsePhotoPlace(
  value: unknown,
): { ok: true; place: PhotoPlace } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(placeShape, value);
  if (faults.length > 0) return { ok: false, faults };
  const place = value as PhotoPlace;
  const [one, two] = place.marks;
  const near = (["photo", "blade"] as const).flatMap((on) => {
    const apart = Math.hypot(one[on][0] - two[on][0], one[on][1] - two[on][1]);
    const unit = on === "photo" ? "pixel" : "mm";
    return apart < NEAREST
      ? [{ path: pathOf("marks", 1, on), message: `must lie at least 1 ${unit} from the first mark` }]
      : [];
  });
  return near.length > 0 ? { ok: false, faults: near } : { ok: true, place };
}
