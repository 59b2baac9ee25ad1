import { LARGEST_PICTURE, LARGEST_SIDE, type Picture } from "@true-spine/core/photo/schema.ts";

/** Largest file that is taken, bytes, and most pixels in it: more is a mistake, or meant to fill the memory. */
const LARGEST_FILE = 25 * 1024 * 1024;
const MOST_PIXELS = 80_000_000;
const KINDS = ["image/jpeg", "image/png", "image/webp"];

/**
 * A photo made small enough to keep with a blade: turned the way it was taken, at most 1200 pixels a side, as JPEG.
 * Nothing of it leaves this machine, and where and when it was taken is not kept. Throws an Error whose words say
 * what is wrong.
 */
export async function pictureFrom(file: File): Promise<Picture> {
  if (!KINDS.includes(file.type)) {
    throw new Error(`“${file.name}” is no JPEG, PNG or WebP picture.`);
  }
  if (file.size > LARGEST_FILE) {
    throw new Error(`“${file.name}” has ${Math.round(file.size / 1e6)} MB; pictures up to 25 MB are taken.`);
  }
  let whole: ImageBitmap;
  try {
    whole = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new Error(`“${file.name}” cannot be read as a picture. It may be damaged.`);
  }
  try {
    if (whole.width * whole.height > MOST_PIXELS) throw new Error(`“${file.name}” has too many pixels.`);
    for (const quality of [0.85, 0.7, 0.5, 0.3]) {
      const picture = await drawn(whole, quality);
      if (picture.data.length <= LARGEST_PICTURE) return picture;
    }
    throw new Error(`“${file.name}” could not be made small enough.`);
  } finally {
    whole.close();
  }
}

async function drawn(whole: ImageBitmap, quality: number): Promise<Picture> {
  const k = Math.min(1, LARGEST_SIDE / Math.max(whole.width, whole.height));
  const width = Math.max(1, Math.round(whole.width * k));
  const height = Math.max(1, Math.round(whole.height * k));
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  canvas.getContext("2d")!.drawImage(whole, 0, 0, width, height);
  return { data: canvas.toDataURL("image/jpeg", quality), width, height };
}
