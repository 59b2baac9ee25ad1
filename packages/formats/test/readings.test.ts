import type { Reading } from "@true-spine/core/inspect/schema.ts";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readReadings, writeReadings } from "../src/read-readings.ts";
import { wordsOf } from "../src/words.ts";
import { writeLog } from "../src/write-log.ts";

const options = {
  of: "blade-1",
  uAt: (x: number) => (x >= 10 && x <= 120 ? (x - 10) / 110 : null),
  stage: "rough" as const,
  when: "2026-11-20T10:00:00.000Z",
};

describe("readings from a file", () => {
  test("what, value and where are enough; units, sides, times and notes are taken as they stand", () => {
    const { readings, refused } = readReadings(
      [
        "What,Value,X,Side,Unit,Stage,When,Note",
        "edge,1.2,65,,,,,",
        "line,0.75,65,left,in,true,2026-11-21T08:30:00Z,by rule",
        "twist,-0.5,,,,,,",
        "hardness,60.5,-8,,,true,,",
      ].join("\r\n"),
      options,
    );
    expect(refused).toEqual([]);
    expect(readings).toMatchObject([
      { what: "edge", u: 0.5, value: 1.2, stage: "rough", by: "file", when: "2026-11-20T10:00:00.000Z" },
      {
        what: "line",
        u: 0.5,
        side: "left",
        value: 19.05,
        stage: "true",
        when: "2026-11-21T08:30:00.000Z",
        note: "by rule",
      },
      { what: "twist", value: -0.5 },
      { what: "hardness", x: -8, value: 60.5 },
    ]);
  });

  test("a row of the second edge names it, and a stage of the route goes by its own name", () => {
    const text = "what,edge,value,x,side,stage\nline,second,4.1,65,left,sharpen-2\nedge,first,0.5,65,,";
    const second = {
      ...options,
      stages: ["rough", "sharpen-2"],
      uAt: (x: number, on?: "second") => (on ? x / 100 : 0.5),
    };
    const { readings, refused } = readReadings(text, second);
    expect(refused).toEqual([]);
    expect(readings).toMatchObject([
      { what: "line", edge: "second", u: 0.65, side: "left", stage: "sharpen-2" },
      { what: "edge", u: 0.5 },
    ]);
    expect(readings[1]).not.toHaveProperty("edge");
    const again = readReadings(writeReadings(readings, []), { ...second, uAt: () => null });
    expect(again.readings.map(({ edge }) => edge)).toEqual(["second", undefined]);
    expect(readReadings("what,edge,value,u\nedge,third,0.5,0.5", options).refused[0]!.why).toContain("third");
    expect(readReadings("what,value,u,stage\nedge,0.5,0.5,sharpen-2", options).refused).toHaveLength(1);
  });

  test.each([
    ["semicolons between", "what;value;u;side\nedge;1,18;0,5;\nline;,75;0,25;left\ntwist;-0,5;;"],
    ["figures in quotes", 'what,value,u,side\nedge,"1,18","0,5",\nline,",75","0,25",left\ntwist,"-0,5",,'],
    ["tabs between", "what\tvalue\tu\tside\nedge\t1,18\t0,5\t\nline\t,75\t0,25\tleft\ntwist\t-0,5\t\t"],
  ])("a decimal comma is one, with %s", (_, text) => {
    const { readings, refused } = readReadings(text, options);
    expect(refused).toEqual([]);
    expect(readings).toMatchObject([
      { what: "edge", u: 0.5, value: 1.18 },
      { what: "line", u: 0.25, side: "left", value: 0.75 },
      { what: "twist", value: -0.5 },
    ]);
  });

  test("no figure has two commas, or a comma and a point", () => {
    const { refused } = readReadings("what;value;u\nedge;1,234,5;0,5\nedge;1.234,5;0,5", options);
    expect(refused.map(({ why }) => why)).toEqual([
      "“1,234,5” is no number for value",
      "“1.234,5” is no number for value",
    ]);
  });

  test("every row that will not do is told with its line and why; the others come in", () => {
    const { readings, refused } = readReadings(
      [
        "what,value,x,u,side,unit,when,stage",
        "edge,thick,65,,,,,",
        "spoon,1,65,,,,,",
        "edge,1,500,,,,,",
        "line,20,65,,,,,",
        "edge,1,65,,,deg,,",
        "edge,,65,,,,,",
        "edge,1,65,,,,noon,",
        "edge,1,65,,,,,dusk",
        "edge,-1,,0.5,,,,",
        "edge,1,,0.5,,,,",
      ].join("\n"),
      options,
    );
    expect(readings).toHaveLength(1);
    expect(refused.map(({ line }) => line)).toEqual([2, 3, 4, 5, 6, 7, 8, 9, 10]);
    expect(refused[0]!.why).toBe("“thick” is no number for value");
    expect(refused[2]!.why).toBe("the edge does not reach x 500");
    expect(refused[3]!.why).toMatch(/^side must be said/);
  });

  test("the same file is the same readings for a blade, and others for another; a row twice is two", () => {
    const csv = "what,value,u\nedge,1,0.5\nedge,1,0.5\n";
    const ids = (of: string, text = csv) =>
      readReadings(text, { ...options, of }).readings.map(({ id }) => id);
    expect(new Set(ids("a")).size).toBe(2);
    expect(ids("a")).toEqual(ids("a"));
    expect(ids("a").some((id) => ids("b").includes(id))).toBe(false);
    expect(ids("a", `${csv}edge,1,0.6\n`)).not.toEqual(ids("a"));
  });

  test("what was written is read again as it was", () => {
    const { readings } = readReadings(
      "what,value,u,side,height\nabove,2.5,0.5,,8\nover,2.1,0.3,right,\n",
      options,
    );
    const again = readReadings(writeReadings(readings, []), options);
    expect(again.refused).toEqual([]);
    expect(again.readings).toEqual(readings);
    const list = { format: "true-spine/readings", version: 1, taken: readings };
    expect(readReadings(JSON.stringify(list), options).readings).toEqual(readings);
  });

  test("a date that may be read in two ways is asked about once, and nothing is read before; one above twelve says it for all", () => {
    const text = "what,value,u,when\nedge,1,0.5,03/04/2026\nedge,1,0.5,5/6/2026 7:30";
    const asked = readReadings(text, options);
    expect(asked).toMatchObject({ readings: [], refused: [], asks: { date: "03/04/2026", headings: [] } });
    const days = (dates: "day first" | "month first") =>
      readReadings(text, { ...options, dates }).readings.map(({ when }) => new Date(when));
    expect(days("day first").map((day) => [day.getMonth(), day.getDate()])).toEqual([
      [3, 3],
      [5, 5],
    ]);
    expect(days("month first").map((day) => [day.getMonth(), day.getDate()])).toEqual([
      [2, 4],
      [4, 6],
    ]);
    expect(days("day first")[1]!.getHours()).toBe(7);
    const told = readReadings(`${text}\nedge,1,0.5,25.12.2026`, options);
    expect(told.asks).toBeNull();
    expect(told.readings[0]!.when).toMatch(/^2026-04-0[23]T/);
    // A number, a year of two figures, a day that is none: no date.
    for (const when of ["7", "3/4/26", "45984", "2026-02-30", "31/02/2026"]) {
      const { readings, refused } = readReadings(`what,value,u,when\nedge,1,0.5,${when}`, options);
      expect([readings.length, refused.map(({ line }) => line)]).toEqual([0, [2]]);
    }
  });

  test("what was struck out is told as struck out, out and in, as CSV and as JSON", () => {
    const { readings } = readReadings("what,value,u\nedge,1,0.5\nedge,1.1,0.5\nedge,1.2,0.5", options);
    const gone = [readings[1]!.id];
    const again = readReadings(writeReadings(readings, gone), options);
    expect(again.readings.map(({ value }) => value)).toEqual([1, 1.1, 1.2]);
    expect(again.struck).toEqual(gone);
    expect(again.asks).toBeNull();
    const list = { format: "true-spine/readings", version: 1, taken: readings, struck: gone };
    expect(readReadings(JSON.stringify(list), options).struck).toEqual(gone);
  });

  test.each([
    ["in brackets", "what,value (in),x (mm),height [in]"],
    ["after a blank", "what,value in,x mm,height in"],
    ["after a line", "what,value_in,x_mm,height_in"],
    ["as words", "What,Value (inches),X (millimetres),Height (inch)"],
  ])("a unit in a heading is that of its column, %s", (_, heads) => {
    const { readings, refused, asks } = readReadings(`${heads}\nabove,0.1,65,0.25`, options);
    expect([refused, asks]).toEqual([[], null]);
    // 0.1 and 0.25 inch of 25.4 mm.
    expect(readings).toMatchObject([{ u: 0.5, value: 2.54, height: 6.35 }]);
  });

  test("a row's own unit goes before the heading's; a length in degrees is none", () => {
    const own = readReadings("what,value (in),unit,u\nedge,1.5,mm,0.5\nedge,0.05,,0.5", options);
    expect(own.readings.map(({ value }) => value)).toEqual([1.5, 1.27]);
    expect(readReadings("what,value,x (deg)\nedge,1,65", options).refused[0]!.why).toContain("x is a length");
  });

  test("headings that are only near a column's name are agreed to before anything is read", () => {
    const text = "kind,reading,position (mm),remarks,batch\nedge,1.2,65,by rule,7";
    const asked = readReadings(text, options);
    expect(asked.readings).toEqual([]);
    expect(asked.asks!.headings).toEqual([
      { words: "kind", column: "what" },
      { words: "reading", column: "value" },
      { words: "position (mm)", column: "x" },
      { words: "remarks", column: "note" },
    ]);
    const read = readReadings(text, { ...options, isAgreed: true });
    expect(read.readings).toMatchObject([{ what: "edge", value: 1.2, u: 0.5, note: "by rule" }]);
    expect(read.passedOver).toEqual(["batch"]);
    // A slip of the hand; but no column twice, and its own name goes first.
    expect(readReadings("what,vlaue,u\nedge,1,0.5", options).asks!.headings).toEqual([
      { words: "vlaue", column: "value" },
    ]);
    const twice = readReadings("what,value,reading,u\nedge,1,9,0.5", options);
    expect(twice.readings.map(({ value }) => value)).toEqual([1]);
    expect(twice.passedOver).toEqual(["reading"]);
  });

  test("a line that says what it sets apart with, empty lines, a cell of two lines: every line is told by its number", () => {
    const { readings, refused } = readReadings(
      'sep=;\r\nwhat;value;u;note\r\n\r\nedge;1,2;0,5;"one\ntwo"\r\n;;;\r\nedge;thick;0,5;\r\n',
      options,
    );
    expect(readings).toMatchObject([{ value: 1.2, u: 0.5, note: "one two" }]);
    expect(refused.map(({ line }) => line)).toEqual([7]);
    expect(readReadings("sep=|\nwhat|value|u\nedge|1|0.5", options).readings).toHaveLength(1);
  });

  test("the same words from files of any encoding", () => {
    const words = "what,value,u,note\nedge,1,0.5,Grün über ½";
    const utf16 = (isBig: boolean, hasMark: boolean) => {
      const units = [...(hasMark ? ["\uFEFF"] : []), ...words].map((sign) => sign.charCodeAt(0));
      return Uint8Array.from(
        units.flatMap((unit) => (isBig ? [unit >> 8, unit & 255] : [unit & 255, unit >> 8])),
      );
    };
    const utf8 = new TextEncoder().encode(words);
    // ISO 8859-1, of which the office machine's page is the greater part: every sign here is its own number.
    const western = Uint8Array.from([...words].map((sign) => sign.charCodeAt(0)));
    for (const bytes of [
      utf8,
      Uint8Array.from([0xef, 0xbb, 0xbf, ...utf8]),
      utf16(false, true),
      utf16(true, true),
      utf16(false, false),
      utf16(true, false),
      western,
    ])
      expect(readReadings(wordsOf(bytes), options).readings[0]!.note).toBe("Grün über ½");
    expect(wordsOf(new Uint8Array())).toBe("");
    // Noughts everywhere are not every other one.
    expect(wordsOf(Uint8Array.from([65, 0, 0, 66, 0, 0, 0, 67, 0, 0])).replace(/\0/g, "")).toBe("ABC");
  });

  test("sheets end every line one way, name their units, and say what page they are where a sign needs it", () => {
    const { readings } = readReadings("what,value,u\nedge,1,0.5", options);
    const plain = writeReadings(readings, []);
    expect(plain.replaceAll("\r\n", "")).not.toMatch(/[\r\n]/);
    expect(plain).toMatch(/^when,stage,what,edge,u,x \(mm\),side,height \(mm\),value,unit,/);
    expect(writeReadings([{ ...readings[0]!, note: "half a ½" }], [])).toMatch(/^\uFEFFwhen,/);
  });

  test("hostile files are told, and nothing throws", () => {
    for (const text of [
      "",
      "{",
      "[]",
      "a,b\n1,2",
      '{"format":"true-spine/readings","version":1,"taken":[{}]}',
      "\u0000".repeat(1000),
    ]) {
      const { readings, refused } = readReadings(text, options);
      expect(readings).toEqual([]);
      expect(refused.length).toBeGreaterThan(0);
    }
    expect(readReadings("x".repeat(17 * 1024 * 1024), options).refused[0]!.why).toMatch(/larger than/);
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (text) => {
        const { readings } = readReadings(`what,value,u\n${text}`, options);
        return readings.every(({ value }) => Number.isFinite(value));
      }),
    );
  });

  test("a formula in a note does not leave as one", () => {
    const note: Reading = {
      ...readReadings("what,value,u\nedge,1,0.5\n", options).readings[0]!,
      note: "=1+1",
    };
    expect(writeReadings([note], [])).not.toMatch(/,=1\+1/);
    expect(writeLog([{ when: note.when, kind: "note", words: "=cmd" }])).toContain("'=cmd");
  });
});
