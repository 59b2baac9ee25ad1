import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type BrowserContext, chromium, expect, type Page, test } from "@playwright/test";
import { makeBlade, openBlade, saved } from "./blade.ts";
import { CHROMIUM } from "./browser.ts";
import { tabTo } from "./keys.ts";
import { choose, press, type } from "./maker.ts";

/** The desk, and a tablet that comes to it over the network: each in a browser of its own, at an address of its own. */
const home = mkdtempSync(join(tmpdir(), "true-spine-tablet-"));
test.afterAll(() => rmSync(home, { recursive: true, force: true }));

/** A tablet whose own store trusts the shop's authority, as the shop's page over plain HTTP tells to. */
async function tabletFor(
  desk: Page,
  isTrusting: boolean,
): Promise<{ context: BrowserContext; address: string }> {
  const { addresses, trust } = await (await desk.request.get("/api/door")).json();
  const store = join(home, ".pki/nssdb");
  if (isTrusting) {
    const told = await desk.request.get(trust);
    expect(await told.text()).toContain("Trust this shop");
    const certificate = await desk.request.get(`${trust}true-spine-shop.crt`);
    const file = join(home, "shop.crt");
    writeFileSync(file, await certificate.body());
    mkdirSync(store, { recursive: true });
    execFileSync("certutil", ["-d", `sql:${store}`, "-N", "--empty-password"]);
    execFileSync("certutil", ["-d", `sql:${store}`, "-A", "-t", "C,,", "-n", "shop", "-i", file]);
  }
  const browser = await chromium.launch({
    ...CHROMIUM,
    env: { ...process.env, HOME: isTrusting ? home : "/nonexistent" } as never,
  });
  const context = await browser.newContext({
    hasTouch: true,
    viewport: { width: 1180, height: 820 },
    ignoreHTTPSErrors: !isTrusting,
  });
  return { context, address: addresses[0] };
}

/** A blade with a route, made at the desk. */
async function routed(desk: Page, name: string): Promise<string> {
  const id = await makeBlade(desk.request, name);
  await openBlade(desk, id);
  await desk.keyboard.press("3");
  await desk.getByRole("button", { name: /^most of it soft/i }).click();
  await expect(desk.getByRole("table", { name: "Stages" })).toContainText("Rough bevels");
  await saved(desk);
  return id;
}

/** Makes a code at the desk, by keys. */
async function codeFor(desk: Page, device: string, role?: string): Promise<string> {
  await desk.goto("/shop");
  await type(desk, "Name of the device", device);
  if (role) await choose(desk, /^It may do/, role);
  await press(desk, "Make a code");
  const shown = desk.getByRole("status", { name: "Code" });
  await expect(shown).toHaveText(/^[0-9A-Z]{4}-[0-9A-Z]{4}$/);
  return shown.innerText();
}

async function typeCode(tablet: Page, code: string): Promise<void> {
  await tabTo(tablet, "Code");
  await tablet.keyboard.type(code);
  await tablet.keyboard.press("Enter");
}

const tap = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true }).tap();
/** What the server answers the tablet's own page. */
const answered = (tablet: Page, method: string, path: string) =>
  tablet.evaluate(async ([method, path]) => (await fetch(path!, { method: method! })).status, [method, path]);

test("a tablet with the cards only: let in by a code, cut off, ticks and reads, comes back with nothing lost, is refused all else, is shut out", async ({
  page: desk,
}) => {
  const id = await routed(desk, "Card on a tablet");
  const { context, address } = await tabletFor(desk, true);
  const tablet = await context.newPage();
  await tablet.goto(address);
  await expect(tablet.getByRole("heading", { name: "Let this device in" })).toBeVisible();
  const code = await codeFor(desk, "Grinder tablet");
  await typeCode(tablet, "0000-0000");
  await expect(tablet.getByRole("alert")).toContainText("does not let anybody in");
  await typeCode(tablet, code.toLowerCase());
  await expect(tablet.getByRole("heading", { name: "Rack" })).toBeVisible();
  await expect(desk.getByText("It was typed, and the device is in.")).toBeVisible();
  await expect(tablet.getByRole("navigation", { name: "Shop" }).getByRole("link")).toHaveText(["", "Rack"]);
  await expect(tablet.getByRole("link", { name: "New blade" })).toHaveCount(0);

  await tablet.getByRole("link", { name: /Card on a tablet/ }).tap();
  await expect(tablet.getByText("works offline")).toBeVisible();
  await expect(tablet.getByText("1 of 15")).toBeVisible();
  for (let i = 0; i < 5; i++) await tap(tablet, "Done");
  await expect(tablet.getByText("6 of 15")).toBeVisible();
  await expect(tablet.getByText("saved", { exact: true })).toBeVisible();

  await context.setOffline(true);
  await tap(tablet, "I went past the line");
  for (const key of ["0", ".", "9", "5"]) await tap(tablet, key);
  await tap(tablet, "Keep it");
  await tap(tablet, "Done");
  await expect(tablet.getByText("7 of 15")).toBeVisible();
  await tablet.reload();
  await expect(tablet.getByText("7 of 15")).toBeVisible();
  await context.setOffline(false);
  await expect(tablet.getByText("saved", { exact: true })).toBeVisible();
  const { taken } = await (await desk.request.get(`/api/blades/${id}/readings`)).json();
  expect(taken).toMatchObject([{ stage: "rough", what: "edge", value: 0.95, by: "card", past: true }]);
  const work = await (await desk.request.get(`/api/blades/${id}/work`)).json();
  expect(work.taken.filter(({ what }: { what: string }) => what === "done")).toHaveLength(6);

  for (const [method, path] of [
    ["PUT", `/api/blades/${id}`],
    ["DELETE", `/api/blades/${id}`],
    ["GET", `/api/blades/${id}/revisions`],
    ["GET", `/api/bundles/${id}`],
    ["GET", "/api/runs"],
    ["GET", "/api/devices"],
    ["POST", "/api/devices/code"],
  ])
    expect(`${method} ${path} ${await answered(tablet, method!, path!)}`).toBe(`${method} ${path} 403`);
  await tablet.goto(`${address}blades/${id}/shape`);
  await expect(tablet.getByText("This device was let in for the cards only.")).toBeVisible();

  // What it listens to ends with it.
  await tablet.evaluate(() => {
    const heard = new EventSource("/api/instruments/stream");
    const state = { isOpen: false, isOver: false };
    heard.onopen = () => (state.isOpen = true);
    heard.onerror = () => (state.isOver = true);
    Object.assign(window, { heard: state });
  });
  const heard = () => tablet.evaluate(() => (window as never as { heard: object }).heard);
  await expect.poll(heard).toEqual({ isOpen: true, isOver: false });
  await press(desk, "Shut out Grinder tablet");
  await press(desk, "Shut it out");
  await expect(desk.getByRole("row", { name: /^Grinder tablet .* shut out / })).toBeVisible();
  expect(await answered(tablet, "GET", "/api/blades")).toBe(401);
  await expect.poll(heard).toEqual({ isOpen: true, isOver: true });
  await tablet.goto(address);
  await expect(tablet.getByRole("heading", { name: "Let this device in" })).toBeVisible();
  await context.browser()!.close();
});

test("a tablet that does not trust the shop works on line, to look only, and is told what it lacks", async ({
  page: desk,
}) => {
  const id = await routed(desk, "Only looked at");
  const { context, address } = await tabletFor(desk, false);
  const tablet = await context.newPage();
  await tablet.goto(address);
  await typeCode(tablet, await codeFor(desk, "Visitor", "look only"));
  await tablet.getByRole("link", { name: /Only looked at/ }).tap();
  await expect(tablet.getByRole("region", { name: "Numbers at the scribe" })).toBeVisible();
  await tablet.getByLabel("Radius it leaves").fill("6");
  await expect(tablet.getByRole("alert").filter({ hasText: "to look only" })).toBeVisible();
  const { file } = await (await desk.request.get(`/api/blades/${id}`)).json();
  expect(file.bevels.right.plunge.radius).not.toBe(6);
  await tablet.goto(`${address}card/${id}`);
  await expect(tablet.getByText("needs the network here")).toBeVisible();
  await context.browser()!.close();
});
