import { randomUUID } from "node:crypto";
import { DOCUMENT_KINDS, NO_DOCUMENTS } from "@true-spine/core/registry/documents.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { bladeNamed, type Stand } from "./stand.ts";

/** One thing that is kept by revisions: where it is, and a file of it that says a number. */
export interface Thing {
  readonly name: string;
  readonly path: string;
  /** Sound, and unlike that of any other number. */
  file(number: number): unknown;
  /** The number that a file says. */
  // biome-ignore lint/suspicious/noExplicitAny: files of every kind
  numberIn(file: any): number;
}

const note = (number: number) => `writes ${number}`;
const numberOf = (words: string) => Number(/\d+/.exec(words)?.[0]);

/** Files of each kind of document that say a number; a kind without one here is a kind that is not soaked. */
const DOCUMENTS: Record<(typeof DOCUMENT_KINDS)[number], Pick<Thing, "file" | "numberIn">> = {
  limits: {
    file: (number) => ({ ...NO_DOCUMENTS.limits, behind: { least: 0.1, most: 0.5, reason: note(number) } }),
    numberIn: (file) => numberOf(file.behind.reason),
  },
  handle: {
    file: (number) => ({
      ...NO_DOCUMENTS.handle,
      pins: [{ x: -30, y: -13, diameter: 5, bore: 0, length: 1 + number / 1000, material: "brass" }],
    }),
    numberIn: (file) => Math.round((file.pins[0].length - 1) * 1000),
  },
  photo: {
    file: (number) => ({
      ...NO_DOCUMENTS.photo,
      picture: {
        data: `data:image/jpeg;base64,${btoa(String(number)).replace(/=/g, "")}`,
        width: 9,
        height: 8,
      },
    }),
    numberIn: (file) => Number(atob(file.picture.data.split(",")[1])),
  },
  photoPlace: {
    file: (number) => ({ ...NO_DOCUMENTS.photoPlace, strength: number / 1e6 }),
    numberIn: (file) => Math.round(file.strength * 1e6),
  },
  route: {
    file: (number) => ({ ...NO_DOCUMENTS.route, stages: [{ kind: "rough", note: note(number) }] }),
    numberIn: (file) => numberOf(file.stages[0].note),
  },
  forge: {
    file: (number) => ({ ...NO_DOCUMENTS.forge, kerf: number / 1e5 }),
    numberIn: (file) => Math.round(file.kerf * 1e5),
  },
  heat: {
    file: (number) => ({ ...NO_DOCUMENTS.heat, steel: { ...NO_DOCUMENTS.heat.steel, sure: number / 1e5 } }),
    numberIn: (file) => Math.round(file.steel.sure * 1e5),
  },
  check: {
    file: (number) => ({ ...NO_DOCUMENTS.check, hardness: 20 + number / 1000 }),
    numberIn: (file) => Math.round((file.hardness - 20) * 1000),
  },
  edge: {
    file: (number) => ({
      ...NO_DOCUMENTS.edge,
      wear: { k: 1.5, perYear: 6, touch: 0.01, full: 0.01 + number / 1e6 },
    }),
    numberIn: (file) => Math.round((file.wear.full - 0.01) * 1e6),
  },
  straight: {
    file: (number) => ({
      ...NO_DOCUMENTS.straight,
      sets: [
        {
          id: randomUUID(),
          when: "2026-01-01T10:00:00Z",
          stage: "flats",
          state: "soft",
          kind: "gap",
          face: "left",
          rows: [{ x: number / 1000, y: 0, v: 0 }],
        },
      ],
    }),
    numberIn: (file) => Math.round(file.sets[0].rows[0].x * 1000),
  },
};

/** Everything that is kept by revisions, each fresh: the blade itself, every kind of its documents, a run, the shop. */
export async function freshThings(stand: Stand): Promise<Thing[]> {
  const blade = randomUUID();
  await stand.send("POST", "/blades", { id: blade, file: bladeNamed(note(0)) });
  return [
    {
      name: "blade",
      path: `/blades/${blade}`,
      file: (number) => bladeNamed(note(number)),
      numberIn: (file) => numberOf(file.name),
    },
    ...DOCUMENT_KINDS.map((kind) => ({
      name: kind,
      path: `/blades/${blade}/documents/${kind}`,
      ...DOCUMENTS[kind],
    })),
    {
      name: "run",
      path: `/runs/${randomUUID()}`,
      file: (number) => ({
        format: "true-spine/run",
        version: 1,
        name: note(number),
        blades: [],
        places: [],
      }),
      numberIn: (file) => numberOf(file.name),
    },
    {
      name: "shop",
      path: "/shop",
      file: (number) => ({ ...USUAL_SHOP, hourly: number / 1000 }),
      numberIn: (file) => Math.round(file.hourly * 1000),
    },
  ];
}
