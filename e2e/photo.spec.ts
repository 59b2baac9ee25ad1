import { expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";

/** A made-up picture as some camera would give it: 640 × 320, a dark bar 500 wide from 70 on, on a light ground. */
async function jpeg(page: Page): Promise<Buffer> {
  const base64 = await page.evaluate(() => {
    const canvas = document.createElement("canvas");
    canvas.width = 640;
    canvas.height = 320;
    const ink = canvas.getContext("2d")!;
    ink.fillStyle = "#d8d0c0";
    ink.fillRect(0, 0, 640, 320);
    ink.fillStyle = "#303840";
    ink.fillRect(70, 130, 500, 60);
    return canvas.toDataURL("image/jpeg", 0.9).split(",")[1]!;
  });
  return Buffer.from(base64, "base64");
}

/** The same with the camera's note that it was held upright: orientation 6, a quarter turn. */
function heldUpright(picture: Buffer): Buffer {
  const tiff = Buffer.from([
    ...[0x4d, 0x4d, 0x00, 0x2a, 0x00, 0x00, 0x00, 0x08],
    ...[0x00, 0x01, 0x01, 0x12, 0x00, 0x03, 0x00, 0x00, 0x00, 0x01, 0x00, 0x06, 0x00, 0x00],
    ...[0x00, 0x00, 0x00, 0x00],
  ]);
  const exif = Buffer.concat([Buffer.from("Exif\0\0"), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, exif.length + 2]);
  return Buffer.concat([picture.subarray(0, 2), head, exif, picture.subarray(2)]);
}

const lay = (page: Page, name: string, mimeType: string, buffer: Buffer) =>
  page.getByLabel("Photo to lay under the outline").setInputFiles({ name, mimeType, buffer });
const kept = async (page: Page, id: string, kind: string) =>
  (await (await page.request.get(`/api/blades/${id}/documents/${kind}`)).json()).file;

test("a photo laid under the outline takes its scale from two marks, and stays with the blade", async ({
  page,
}) => {
  const id = await makeBlade(page.request, "On a photo");
  await openBlade(page, id, "shape");
  await lay(page, "liked.jpg", "image/jpeg", await jpeg(page));
  const picture = page.locator("image");
  await expect(picture).toHaveAttribute("width", "640");

  // The marks are put on the bar's ends by keys, then said to be 200 mm apart.
  const between = page.getByLabel("Between the marks");
  await expect(between).toHaveValue("237");
  const mark = page.getByRole("button", { name: /^Mark 1 on the photo/ });
  await mark.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press("Shift+ArrowRight");
  await expect(between).toHaveValue("227");
  await between.fill("8 in");
  await between.press("Enter");
  await expect(between).toHaveValue("203.2");
  await page.getByRole("button", { name: "Mirror", exact: true }).click();
  await page.getByLabel("Strength").fill("40");
  await page.getByLabel("Strength").press("Enter");
  await saved(page);
  const place = await kept(page, id, "photoPlace");
  expect(place).toMatchObject({ isMirrored: true, strength: 0.4 });
  const [one, two] = place.marks;
  expect(Math.hypot(two.blade[0] - one.blade[0], two.blade[1] - one.blade[1])).toBeCloseTo(203.2, 6);
  // 10 mm of 237 over 640 pixels is 27 pixels in from the left.
  expect(one.photo[0]).toBeCloseTo((10 * 640) / 237, 6);

  await openBlade(page, id, "shape");
  await expect(picture).toHaveAttribute("opacity", "0.4");
  await page
    .getByRole("region", { name: "Photo under it" })
    .getByRole("button", { name: "Remove", exact: true })
    .click();
  await expect(picture).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(picture).toHaveCount(1);
});

test("a photo held upright lies as it was taken; nothing of the camera is kept", async ({ page }) => {
  const id = await makeBlade(page.request, "Upright");
  await openBlade(page, id, "shape");
  await lay(page, "upright.jpg", "image/jpeg", heldUpright(await jpeg(page)));
  await expect(page.locator("image")).toHaveAttribute("height", "640");
  await saved(page);
  const { picture } = await kept(page, id, "photo");
  expect([picture.width, picture.height]).toEqual([320, 640]);
  expect(Buffer.from(picture.data.split(",")[1], "base64").includes("Exif")).toBe(false);
});

test("what is no picture is refused in words, and the photo that lay there stays", async ({ page }) => {
  const id = await makeBlade(page.request, "Refused photo");
  await openBlade(page, id, "shape");
  await lay(page, "liked.jpg", "image/jpeg", await jpeg(page));
  await expect(page.locator("image")).toHaveCount(1);
  const alert = page.getByRole("region", { name: "Photo under it" }).getByRole("alert");
  await lay(page, "notes.txt", "text/plain", Buffer.from("not a picture"));
  await expect(alert).toHaveText("“notes.txt” is no JPEG, PNG or WebP picture.");
  await lay(page, "broken.png", "image/png", Buffer.from("not a picture"));
  await expect(alert).toHaveText("“broken.png” cannot be read as a picture. It may be damaged.");
  await lay(page, "huge.jpg", "image/jpeg", Buffer.alloc(26 * 1024 * 1024));
  await expect(alert).toContainText("pictures up to 25 MB are taken");
  await expect(page.locator("image")).toHaveCount(1);
});
