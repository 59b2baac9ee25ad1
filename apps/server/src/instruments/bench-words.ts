import { Type } from "@sinclair/typebox";
import { validatorOf } from "@true-spine/core/document/validator.ts";
import {
  atInstrument,
  type BenchEvent,
  type ToInstrument,
  toInstrument,
  UNITS,
} from "@true-spine/core/inspect/wire.ts";
import { INSTRUMENT_KINDS } from "@true-spine/core/shop/instrument.ts";

/** What one server tells the others of its bench. `from` is the server, by a name of its own for as long as it lives. */
export type BenchWords =
  | { readonly from: string; readonly say: "event"; readonly event: BenchEvent }
  | { readonly from: string; readonly say: "tell"; readonly id: string; readonly message: ToInstrument };

/** Longest that NOTIFY carries. Source: PostgreSQL's manual, 8000 bytes less its end. */
const LONGEST = 7999;

const only = { additionalProperties: false };
const oneOf = (words: readonly string[]) => Type.Union(words.map((word) => Type.Literal(word)));
const Id = Type.String({ minLength: 1, maxLength: 60 });
const figure = { value: Type.Number(), unit: oneOf(UNITS) };
const kind = oneOf(INSTRUMENT_KINDS);
const From = Type.String({ pattern: "^[0-9a-f-]{36}$" });
const State = Type.Object(
  {
    id: Id,
    kind,
    isSimulated: Type.Boolean(),
    state: oneOf(["here", "away", "nonsense"]),
    last: Type.Union([Type.Null(), Type.Object({ ...figure, at: Type.Number() }, only)]),
  },
  only,
);
const port = Type.Integer({ minimum: 0, maximum: 65_535 });
const Who = Type.Object(
  { event: Type.Literal("instruments"), instruments: Type.Array(State, { maxItems: 64 }), port },
  only,
);
const press = Type.Optional(Type.Integer({ minimum: 1 }));
const Read = Type.Object({ event: Type.Literal("reading"), id: Id, kind, ...figure, press }, only);
const isWords = validatorOf(
  Type.Union([
    Type.Object({ from: From, say: Type.Literal("event"), event: Type.Union([Who, Read]) }, only),
    Type.Object(
      { from: From, say: Type.Literal("tell"), id: Id, line: Type.String({ maxLength: 300 }) },
      only,
    ),
  ]),
);

/** Words for NOTIFY; null where they are longer than it carries. What an instrument is told goes as the line it will be. */
export function benchWords(words: BenchWords): string | null {
  const { from, say } = words;
  const text = JSON.stringify(
    say === "tell" ? { from, say, id: words.id, line: toInstrument(words.message) } : words,
  );
  return Buffer.byteLength(text) > LONGEST ? null : text;
}

/** Reads what a server told; null where it is nothing of the kind. Never throws. */
export function parseBenchWords(text: string): BenchWords | null {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  if (!isWords(value)) return null;
  const told = value as BenchWords & { line: string };
  if (told.say === "event") return told;
  const message = atInstrument(told.line);
  return message && { from: told.from, say: "tell", id: told.id, message };
}
