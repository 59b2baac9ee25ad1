import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { unzipSync } from "fflate";
import { saved } from "./blade.ts";
import { tabTo } from "./keys.ts";
import { press, startBlade } from "./maker.ts";

/** A blade whole, out of the program and into it again. */
const folder = mkdtempSync(join(tmpdir(), "true-spine-bundle-"));
test.afterAll(() => rmSync(folder, { recursive: true }));

const open = async (page: Page, file: string) => {
  await page.goto("/");
  await page.getByLabel("Blade file, bundle or drawing").setInputFiles(file);
};
const notice = (page: Page, words: RegExp) => expect(page.getByText(words)).toBeVisible();

test("a blade goes out as a bundle with its history, and comes back by its own file after it was deleted", async ({
  page,
}) => {
  await startBlade(page, "Moves whole");
  await saved(page);
  const id = /blades\/([0-9a-f-]+)/.exec(page.url())![1]!;
  await press(page, /^Export:/);
  await press(page, "Bundle with its history", "Space");
  await tabTo(page, "Export bundle");
  const [taken] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Enter")]);
  expect(taken.suggestedFilename()).toBe("moves-whole-bundle.zip");
  const file = join(folder, "moves-whole.zip");
  await taken.saveAs(file);
  const list = JSON.parse(new TextDecoder().decode(unzipSync(readFileSync(file))["bundle.json"]));
  expect(list).toMatchObject({ format: "true-spine/bundle", version: 1, blade: { id, name: "Moves whole" } });
  expect(list.files.map(({ path }: { path: string }) => path)).toEqual(
    expect.arrayContaining(["blade/1.json", "handle/1.json", "route/1.json"]),
  );

  await open(page, file);
  await notice(page, /“Moves whole”: nothing in it is new\./);

  await page.request.delete(`/api/blades/${id}`);
  await open(page, file);
  const asked = page.getByRole("dialog", { name: "This blade is here already" });
  await expect(asked).toContainText("It was deleted here, and would be taken back.");
  await press(page, "Put it onto that one");
  await expect(page).toHaveURL(new RegExp(`/blades/${id}/grind`));

  await page.request.delete(`/api/blades/${id}`);
  await open(page, file);
  await press(page, "As another blade");
  await notice(page, /“Moves whole”: taken in: 1 revision, 2 states of its documents\./);
  expect(page.url()).not.toContain(id);
});

test("the same from a terminal; a file that is no bundle is refused with its reason", async ({
  page,
  baseURL,
}) => {
  await startBlade(page, "Moves by hand");
  await saved(page);
  const file = join(folder, "by-hand.zip");
  const bundle = (...words: string[]) =>
    execFileSync(process.execPath, ["scripts/bundle.mjs", ...words, "--at", baseURL!], {
      cwd: join(import.meta.dirname, ".."),
      encoding: "utf8",
      stdio: ["ignore", "pipe", "pipe"],
    });
  expect(bundle("out", "Moves by hand", file)).toContain("holds the blade whole");
  expect(bundle("in", file)).toContain("nothing in it is new");
  expect(bundle("in", file, "--beside")).toMatch(/“Moves by hand” .*revisions 1, documents 2/);
  expect(() => bundle("out", "Moves by hand", file)).toThrow(/is there already/);
  expect(() => bundle("in", join(import.meta.dirname, "bundle.spec.ts"))).toThrow(/cannot be unpacked/);

  await page.goto("/");
  await page
    .getByLabel("Blade file, bundle or drawing")
    .setInputFiles({ name: "broken.zip", mimeType: "application/zip", buffer: Buffer.from("PK no") });
  const refused = page.getByRole("dialog", { name: "This file was not opened" });
  await expect(refused).toContainText("it cannot be unpacked. Nothing was taken in.");
});
