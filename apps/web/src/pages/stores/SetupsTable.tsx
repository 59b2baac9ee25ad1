import { HAND_SD } from "@true-spine/core/edge/tools.ts";
import type { NamedHeld } from "@true-spine/core/shop/schema.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { NumberBox, RangedLength } from "../../parts/Box.tsx";
import { NameBox } from "../../parts/NameBox.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";

type Held = NamedHeld["setup"];

const KINDS: Readonly<Record<Held["kind"], { name: string; first: Held }>> = {
  rest: { name: "rest against platen", first: { kind: "rest" } },
  guide: { name: "bevel guide and block", first: { kind: "guide" } },
  screw: { name: "screw jig", first: { kind: "screw", pivot: 150, by: "tangent" } },
  arm: { name: "tool arm with a dial", first: { kind: "arm", zero: 0, sense: 1 } },
  wheel: { name: "contact wheel", first: { kind: "wheel", diameter: 250 } },
  stone: { name: "stone, spine lifted", first: { kind: "stone", width: 30 } },
  file: { name: "file, end lifted", first: { kind: "file", width: 180 } },
  rod: { name: "edge: rod through a ball", first: { kind: "rod", P: [60, 120], s: 6 } },
  support: { name: "edge: wheel and support", first: { kind: "support", R: 125, p: 140, q: 8 } },
  slack: { name: "edge: slack belt", first: { kind: "slack", F: 10, N: 100 } },
  hand: { name: "edge: free hand", first: { kind: "hand", sd: HAND_SD } },
};

/** Jigs and rests by name, each with what it must be told to give its own reading. */
export function SetupsTable() {
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const change = (setups: NamedHeld[]) => setWhy(put({ ...shop, setups }));
  const edit = (id: string, patch: Partial<NamedHeld>) =>
    change(shop.setups.map((one) => (one.id === id ? { ...one, ...patch } : one)));
  const add = () => {
    const id = freshId(shop.setups, "setup");
    change([...shop.setups, { id, name: id.replace("setup-", "set-up "), setup: { kind: "rest" } }]);
  };
  return (
    <section aria-label="Set-ups" className="mt-6">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="font-bold">Set-ups</h2>
        <PlainButton onClick={add}>Add a set-up</PlainButton>
      </div>
      {why && <Alert className="mb-2">{why}</Alert>}
      <ul className="bg-sheet text-sm">
        {shop.setups.map(({ id, name, setup }) => (
          <li key={id} className="flex flex-wrap items-center gap-2 border-t border-rule px-2 py-1.5">
            <NameBox
              label={`Name of ${name}`}
              labelled="hidden"
              className="w-56"
              maxLength={60}
              name={name}
              onName={(next) => edit(id, { name: next })}
            />
            <select
              aria-label={`Kind of ${name}`}
              className="h-8 rounded border border-frame bg-sheet px-1"
              value={setup.kind}
              onChange={(event) =>
                edit(id, { setup: KINDS[event.currentTarget.value as Held["kind"]].first })
              }
            >
              {Object.entries(KINDS).map(([kind, { name: words }]) => (
                <option key={kind} value={kind}>
                  {words}
                </option>
              ))}
            </select>
            <Told name={name} setup={setup} onChange={(next) => edit(id, { setup: next })} />
            <button
              type="button"
              aria-label={`Remove ${name}`}
              className="ml-auto rounded p-1 text-faint hover:bg-room"
              onClick={() => change(shop.setups.filter((one) => one.id !== id))}
            >
              <X className="size-4" aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What a set-up must be told to give its own reading. */
function Told({ name, setup, onChange }: { name: string; setup: Held; onChange: (next: Held) => void }) {
  const length = (what: string, value: number, least: number, put: (mm: number) => Held) => (
    <>
      <span className="text-faint">{what}</span>
      <RangedLength
        label={`${what} of ${name}`}
        value={value}
        least={least}
        most={2000}
        onChange={(mm) => onChange(put(mm))}
      />
    </>
  );
  const force = (what: string, value: number, put: (newton: number) => Held) => (
    <>
      <span className="text-faint">{what}, N</span>
      <NumberBox
        label={`${what} of ${name}, N`}
        value={value}
        least={0.1}
        most={2000}
        onChange={(newton) => onChange(put(newton))}
      />
    </>
  );
  switch (setup.kind) {
    case "screw":
      return (
        <>
          <span className="text-faint">pivot to screw</span>
          <RangedLength
            label={`Pivot to screw of ${name}`}
            value={setup.pivot}
            least={1}
            most={2000}
            onChange={(pivot) => onChange({ ...setup, pivot })}
          />
          <select
            aria-label={`Geometry of ${name}`}
            className="h-8 rounded border border-frame bg-sheet px-1"
            value={setup.by}
            onChange={(event) => onChange({ ...setup, by: event.currentTarget.value as "tangent" | "sine" })}
          >
            <option value="tangent">by tangent</option>
            <option value="sine">by sine</option>
          </select>
        </>
      );
    case "arm":
      return (
        <>
          <span className="text-faint">dial at zero, °</span>
          <NumberBox
            label={`Dial at zero of ${name}, degrees`}
            value={setup.zero}
            least={-180}
            most={180}
            onChange={(zero) => onChange({ ...setup, zero })}
          />
          <select
            aria-label={`Sense of ${name}`}
            className="h-8 rounded border border-frame bg-sheet px-1"
            value={String(setup.sense)}
            onChange={(event) => onChange({ ...setup, sense: event.currentTarget.value === "1" ? 1 : -1 })}
          >
            <option value="1">grows for the right side</option>
            <option value="-1">falls for the right side</option>
          </select>
        </>
      );
    case "wheel":
      return (
        <>
          <span className="text-faint">measured across</span>
          <RangedLength
            label={`Wheel of ${name} measured across`}
            value={setup.diameter}
            least={10}
            most={2000}
            onChange={(diameter) => onChange({ ...setup, diameter })}
          />
        </>
      );
    case "stone":
    case "file":
      return (
        <>
          <span className="text-faint">
            {setup.kind === "stone" ? "edge to spine" : "edge to lifted end"}
          </span>
          <RangedLength
            label={`Width of ${name}`}
            value={setup.width}
            least={1}
            most={2000}
            onChange={(width) => onChange({ ...setup, width })}
          />
        </>
      );
    case "rod":
      return (
        <>
          {length("ball from the junction", setup.P[0]!, -2000, (x) => ({ ...setup, P: [x, setup.P[1]!] }))}
          {length("ball over the datum", setup.P[1]!, -2000, (y) => ({ ...setup, P: [setup.P[0]!, y] }))}
          {length("stone's face inside the rod", setup.s, 0, (s) => ({ ...setup, s }))}
          {length("clamp off centre", setup.c ?? 0, -20, (c) => ({ ...setup, c }))}
        </>
      );
    case "support":
      return (
        <>
          {length("wheel's radius", setup.R, 5, (R) => ({ ...setup, R }))}
          {length("apex to support", setup.p, 1, (p) => ({ ...setup, p }))}
          {length("support off the plane", setup.q, -100, (q) => ({ ...setup, q }))}
        </>
      );
    case "slack":
      return (
        <>
          {force("push", setup.F, (F) => ({ ...setup, F }))}
          {force("tension", setup.N, (N) => ({ ...setup, N }))}
        </>
      );
    case "hand":
      return (
        <>
          <span className="text-faint">wanders by, °</span>
          <NumberBox
            label={`Spread of ${name}, degrees`}
            value={setup.sd}
            least={0}
            most={15}
            onChange={(sd) => onChange({ ...setup, sd })}
          />
        </>
      );
    default:
      return null;
  }
}
