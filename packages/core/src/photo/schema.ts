import { type Static, Type } from "@sinclair/typebox";

/**
 * A photo of a liked knife, kept with a blade. The picture and where it lies are documents of their own: the
 * picture is saved once, its place as often as it is moved.
 */
const only = { additionalProperties: false } as const;

/** Longest side of a kept picture, pixels: enough to follow an outline by. */
export const LARGEST_SIDE = 1200;
/** Most characters of a kept picture: what a browser can hold as a draft beside everything else. */
export const LARGEST_PICTURE = 450_000;

const Pixels = Type.Integer({ minimum: 1, maximum: LARGEST_SIDE });
const Picture = Type.Object(
  {
    data: Type.String({
      maxLength: LARGEST_PICTURE,
      pattern: "^data:image/(jpeg|png|webp);base64,[A-Za-z0-9+/]+={0,2}$",
    }),
    width: Pixels,
    height: Pixels,
  },
  only,
);

/** `true-spine/photo` version 1: the picture itself, or none. */
export const PhotoSchema = Type.Object(
  {
    format: Type.Literal("true-spine/photo"),
    version: Type.Literal(1),
    picture: Type.Union([Picture, Type.Null()]),
  },
  { ...only, $id: "true-spine/photo/1", title: "True Spine photo of a knife, version 1" },
);

const Coordinate = Type.Number({ minimum: -4000, maximum: 4000 });
const Pair = Type.Tuple([Coordinate, Coordinate]);
const Mark = Type.Object(
  {
    /** On the picture: pixels from its upper left corner, y down. */
    photo: Pair,
    /** On the blade: mm in the blade's axes, y up. */
    blade: Pair,
  },
  only,
);

/** `true-spine/photo-place` version 1: two marks on the picture and where on the blade they lie. */
export const PhotoPlaceSchema = Type.Object(
  {
    format: Type.Literal("true-spine/photo-place"),
    version: Type.Literal(1),
    marks: Type.Tuple([Mark, Mark]),
    /** Shown as in a mirror, for a knife that was taken from its other side. */
    isMirrored: Type.Boolean(),
    /** 0 unseen, 1 in full. */
    strength: Type.Number({ minimum: 0, maximum: 1 }),
  },
  { ...only, $id: "true-spine/photo-place/1", title: "True Spine place of a photo, version 1" },
);

export type Photo = Static<typeof PhotoSchema>;
export type Picture = Static<typeof Picture>;
export type PhotoPlace = Static<typeof PhotoPlaceSchema>;

export const NO_PHOTO: Photo = { format: "true-spine/photo", version: 1, picture: null };
export const NO_PLACE: PhotoPlace = {
  format: "true-spine/photo-place",
  version: 1,
  marks: [
    { photo: [0, 0], blade: [0, 0] },
    { photo: [100, 0], blade: [100, 0] },
  ],
  isMirrored: false,
  strength: 0.6,
};
