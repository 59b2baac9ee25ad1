import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { type APIRequestContext, expect, type Page } from "@playwright/test";

// biome-ignore lint/suspicious/noExplicitAny: tests change files freely
type File = any;

/** The field knife of the examples, under a name of its own. */
export function fieldKnife(name: string): File {
  const file = JSON.parse(
    readFileSync(new URL("../packages/core/examples/field.json", import.meta.url), "utf8"),
  );
  return { ...file, name, use: "field", falseEdge: { ...file.falseEdge, from: 92, to: 116 } };
}

/** Puts a blade of its own on the rack for one test. */
export async function makeBlade(
  request: APIRequestContext,
  name: string,
  change: (file: File) => void = () => {},
) {
  const id = randomUUID();
  const file = fieldKnife(name);
  change(file);
  const answer = await request.post("/api/blades", { data: { id, file } });
  expect(answer.status(), await answer.text()).toBe(201);
  return id;
}

export async function openBlade(page: Page, id: string, where: "grind" | "shape" = "grind"): Promise<void> {
  await page.goto(`/blades/${id}/${where}`);
  await expect(page.getByRole("region", { name: "Numbers at the scribe" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Whole blade" })).toContainText("Steel");
}

export const saved = (page: Page) =>
  expect(page.getByRole("status").filter({ hasText: /^saved$/ })).toBeVisible();

/** A cell of the numbers at the scribe: a row's name and a column 0 left, 1 right, 2 both, 3 wanted. */
export async function numberAt(page: Page, row: string, column: 0 | 1 | 2 | 3): Promise<string> {
  const line = page
    .getByRole("region", { name: "Numbers at the scribe" })
    .getByRole("row", { name: new RegExp(`^${row}`) });
  return (await line.getByRole("cell").nth(column).innerText()).trim();
}
