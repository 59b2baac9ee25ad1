import { ratioOf } from "@true-spine/core/numbers/rates.ts";
import { create } from "zustand";
import { persist } from "zustand/middleware";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

interface KeptPairs {
  readonly pairs: readonly (readonly [string, string])[];
  put(pairs: KeptPairs["pairs"]): void;
}
const BEGIN: KeptPairs["pairs"] = [
  ["", ""],
  ["", ""],
  ["", ""],
  ["", ""],
];
const MOST = 20;

/** Forces or counts of two edges as this browser keeps them, as they were typed. */
const usePairs = create<KeptPairs>()(
  persist((set) => ({ pairs: BEGIN, put: (pairs) => set({ pairs }) }), {
    name: "true-spine-cutting",
    partialize: ({ pairs }) => ({ pairs }),
  }),
);

const figure = (text: string) => Number(text.trim().replace(",", "."));
const isFigure = (text: string) => text.trim() !== "" && Number.isFinite(figure(text)) && figure(text) > 0;

/** How much more one edge takes than another, by pairs of forces, or of cuts until it takes half as much again: turn and turn about. */
export function CompareGroup() {
  const { pairs, put } = usePairs();
  const whole = pairs
    .filter(([a, b]) => isFigure(a) && isFigure(b))
    .map(([a, b]) => [figure(a), figure(b)] as const);
  const ratio = ratioOf(whole);
  const change = (i: number, k: 0 | 1, text: string) =>
    put(
      pairs.map((pair, n) => {
        if (n !== i) return pair;
        return k === 0 ? ([text, pair[1]] as const) : ([pair[0], text] as const);
      }),
    );
  return (
    <Group title="Two edges, cut by cut">
      <p className="text-xs text-faint">
        Forces, or cuts until the force is one and a half of the first: A, B, B, A, in the same stuff.
      </p>
      <div className="grid grid-cols-2 gap-x-3 gap-y-1">
        {pairs.map(([a, b], i) =>
          ([a, b] as const).map((text, k) => (
            <TextBox
              // biome-ignore lint/suspicious/noArrayIndexKey: a pair is its place
              key={`${i} ${k}`}
              label={`${k === 0 ? "A" : "B"} ${i + 1}`}
              labelled="beside"
              size="small"
              align="right"
              width="w-20"
              inputMode="decimal"
              text={text}
              why={text.trim() === "" || isFigure(text) ? null : "A number above 0."}
              onText={(next) => change(i, k as 0 | 1, next)}
            />
          )),
        )}
      </div>
      <div className="flex gap-2">
        {pairs.length < MOST && (
          <SmallButton onClick={() => put([...pairs, ["", ""]])}>One more pair</SmallButton>
        )}
        {whole.length > 0 && <SmallButton onClick={() => put(BEGIN)}>Begin again</SmallButton>}
      </div>
      <p role="status" className="text-sm">
        {ratio ? (
          <>
            A takes <strong>{ratio.ratio.toFixed(3)}</strong> times what B takes, {ratio.low.toFixed(3)} to{" "}
            {ratio.high.toFixed(3)} (95 % sure), by {whole.length} pairs.
          </>
        ) : (
          `${whole.length} of 4 pairs: fewer say nothing.`
        )}
      </p>
    </Group>
  );
}
