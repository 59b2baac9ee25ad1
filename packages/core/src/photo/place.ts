import type { PhotoPlace, Picture } from "./schema.ts";

/**
 * Where a photo lies on a blade. Two marks on it and their two places on the blade settle shift, turn and scale, and
 * nothing else: a photo is never stretched out of shape. Source: geometry, the similarity through two pairs of points.
 */
type Point = readonly [number, number];

/** x = a·u + c·v + e, y = b·u + d·v + f, from pixels (u right, v down) to mm in the blade's axes. */
export interface Laid {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

/** The rule from the photo's pixels to the blade's millimetres. The marks must not coincide on the photo. */
export function laid({ marks, isMirrored }: PhotoPlace): Laid {
  const hand = isMirrored ? -1 : 1;
  const [one, two] = marks;
  // The picture's own plane with y up, mirrored where asked.
  const [u, v] = [hand * (two.photo[0] - one.photo[0]), -(two.photo[1] - one.photo[1])];
  const [x, y] = [two.blade[0] - one.blade[0], two.blade[1] - one.blade[1]];
  const square = u * u + v * v;
  const along = (x * u + y * v) / square;
  const across = (y * u - x * v) / square;
  const rule = { a: hand * along, b: hand * across, c: across, d: -along };
  const [pu, pv] = one.photo;
  return {
    ...rule,
    e: one.blade[0] - rule.a * pu - rule.c * pv,
    f: one.blade[1] - rule.b * pu - rule.d * pv,
  };
}

export function toBlade({ a, b, c, d, e, f }: Laid, [u, v]: Point): [number, number] {
  return [a * u + c * v + e, b * u + d * v + f];
}

export function toPhoto({ a, b, c, d, e, f }: Laid, [x, y]: Point): [number, number] {
  const whole = a * d - b * c;
  return [(d * (x - e) - c * (y - f)) / whole, (a * (y - f) - b * (x - e)) / whole];
}

/** mm between the marks, as the photo lies. */
export function apart({ marks: [one, two] }: PhotoPlace): number {
  return Math.hypot(two.blade[0] - one.blade[0], two.blade[1] - one.blade[1]);
}

/** Degrees by which the line through the marks climbs toward the second. */
export function climb({ marks: [one, two] }: PhotoPlace): number {
  return (Math.atan2(two.blade[1] - one.blade[1], two.blade[0] - one.blade[0]) * 180) / Math.PI;
}

/** Sets the scale: the marks are truly this far apart, mm. The first mark stays where it is. */
export function scaled(place: PhotoPlace, mm: number): PhotoPlace {
  return aimed(place, mm, climb(place));
}

/** Turns the photo about its first mark until the line through both climbs by `degrees`. */
export function turned(place: PhotoPlace, degrees: number): PhotoPlace {
  return aimed(place, apart(place), degrees);
}

function aimed(place: PhotoPlace, mm: number, degrees: number): PhotoPlace {
  const [one, two] = place.marks;
  const angle = (degrees * Math.PI) / 180;
  const blade: [number, number] = [one.blade[0] + mm * Math.cos(angle), one.blade[1] + mm * Math.sin(angle)];
  return { ...place, marks: [one, { photo: two.photo, blade }] };
}

/** Shifts the whole photo by (dx, dy) mm. */
export function shifted(place: PhotoPlace, dx: number, dy: number): PhotoPlace {
  const moved = (mark: PhotoPlace["marks"][number]): PhotoPlace["marks"][number] => ({
    photo: mark.photo,
    blade: [mark.blade[0] + dx, mark.blade[1] + dy],
  });
  return { ...place, marks: [moved(place.marks[0]), moved(place.marks[1])] };
}

/** Takes a mark to another spot of the photo, which itself stays where it lies. */
export function remarked(place: PhotoPlace, index: 0 | 1, blade: Point): PhotoPlace {
  const mark = { photo: toPhoto(laid(place), blade), blade: [blade[0], blade[1]] as [number, number] };
  return { ...place, marks: index === 0 ? [mark, place.marks[1]] : [place.marks[0], mark] };
}

/** Shows the photo as in a mirror, the middle between the marks staying where it is. */
export function mirrored(place: PhotoPlace): PhotoPlace {
  const [one, two] = place.marks;
  return {
    ...place,
    isMirrored: !place.isMirrored,
    marks: [
      { photo: one.photo, blade: two.blade },
      { photo: two.photo, blade: one.blade },
    ],
  };
}

/** A first place: the photo as wide as the knife, its middle on the knife's middle. */
export function firstPlace(
  { width, height }: Picture,
  knife: { left: number; right: number; top: number; bottom: number },
  strength: number,
): PhotoPlace {
  const middle = (knife.top + knife.bottom) / 2;
  return {
    format: "true-spine/photo-place",
    version: 1,
    marks: [
      { photo: [0, height / 2], blade: [knife.left, middle] },
      { photo: [width, height / 2], blade: [knife.right, middle] },
    ],
    isMirrored: false,
    strength,
  };
}
