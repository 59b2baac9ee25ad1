import { expect, test } from "vitest";
import type { Finding } from "../../src/findings/finding.ts";
import { causesFirst, groupFindings } from "../../src/findings/groups.ts";
import { confirmRemedies, judge } from "../../src/findings/judge.ts";
import { changed, example } from "../examples.ts";

const found = (id: string, severity: Finding["severity"], more: Partial<Finding> = {}): Finding => ({
  id,
  severity,
  where: { x: [40, 80] },
  message: id,
  advice: "",
  basis: "geometry",
  remedies: [],
  ...more,
});
const told = (findings: readonly Finding[]) =>
  groupFindings(findings).map(({ finding, consequences }) => [
    finding.id,
    ...consequences.map(({ id }) => id),
  ]);

test("what follows from a cause at the same place stands under it; elsewhere it stands alone", () => {
  const cause = found("plane-below-apex", "fix");
  expect(told([cause, found("behind-edge-thin", "fix"), found("tip-thin", "watch")])).toEqual([
    ["plane-below-apex", "behind-edge-thin", "tip-thin"],
  ]);
  expect(told([cause, found("behind-edge-thin", "fix", { where: { x: [90, 99] } })])).toHaveLength(2);
  expect(
    told([cause, found("behind-edge-thin", "fix", { where: { side: "left", x: [50, 60] } })]),
  ).toHaveLength(1);
  // What by its kind follows stands under its cause though it is worse; what merely has the same cure does not.
  expect(told([found("behind-edge-thin", "fix"), found("plane-below-apex", "watch")])).toEqual([
    ["plane-below-apex", "behind-edge-thin"],
  ]);
});

test("a cause is told before what follows from it: the wall of a plunge, a taper that rises", () => {
  const order = (...findings: ReturnType<typeof found>[]) => causesFirst(findings).map(({ id }) => id);
  expect(
    order(found("behind-edge-thick", "fix"), found("hole-near-edge", "watch"), found("plunge-wall", "note")),
  ).toEqual(["plunge-wall", "behind-edge-thick", "hole-near-edge"]);
  expect(order(found("thick-at-5", "fix"), found("taper-rises", "watch"))).toEqual([
    "taper-rises",
    "thick-at-5",
  ]);
});

test("findings with one cure are one, and none is lost, whoever names whom", () => {
  const cure = [{ words: "Thinner.", changes: [{ path: ["a"], value: 1 }] }];
  const findings = [
    found("one", "fix", { remedies: cure, clears: ["two", "three"] }),
    found("two", "fix", { remedies: cure, clears: ["one"] }),
    found("three", "watch", { clears: ["one", "two"] }),
    found("four", "note"),
  ];
  expect(told(findings)).toEqual([["one", "two", "three"], ["four"]]);
  expect(told(findings).flat()).toHaveLength(findings.length);
});

test("a straight pull past the apex is one finding, not four", () => {
  const blade = changed(example("field"), (copy) => {
    copy.use = "field";
    delete copy.falseEdge;
    copy.edge.offset = 0;
    copy.bevels = {
      right: {
        kind: "flat",
        pull: "straight",
        set: "angle",
        angle: 3,
        restAngle: 8,
        plunge: { x: 12, lean: 10, radius: 4 },
      },
      left: "same",
    };
  });
  const { findings } = judge(blade);
  expect(findings.filter(({ severity }) => severity !== "note").length).toBeGreaterThan(2);
  const groups = groupFindings(confirmRemedies(blade, findings));
  expect(groups.flatMap(({ finding, consequences }) => [finding, ...consequences])).toHaveLength(
    findings.length,
  );
  const past = groups.filter(({ finding, consequences }) =>
    [finding, ...consequences].some(({ id }) => id === "plane-below-apex"),
  );
  expect(past).toHaveLength(1);
  expect(groups.length).toBeLessThan(findings.length);
});
