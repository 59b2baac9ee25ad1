import type { DocumentKind } from "@true-spine/core/registry/documents.ts";

const NAMES: Readonly<Record<"blade" | DocumentKind, string>> = {
  blade: "The blade",
  limits: "Its limits",
  handle: "The handle",
  photo: "The photo under it",
  photoPlace: "The place of the photo",
  route: "The route",
  forge: "What is chosen at the fire",
  heat: "The steel and its heats",
  check: "What was decided at the bench",
  straight: "What is known of its build",
  edge: "How its edge is kept",
};

/** What a part of a blade that saves itself is called, at the head of a sentence. */
export const partName = (part: "blade" | DocumentKind) => NAMES[part];
