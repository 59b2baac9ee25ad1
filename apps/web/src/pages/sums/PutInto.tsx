import { knifeFrom } from "@true-spine/core/sums/knife.ts";
import type { Answer, Given, Sum } from "@true-spine/core/sums/sum.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { useState } from "react";
import { useNavigate } from "react-router";
import { createBlade, useBladeNames } from "../../api/blades.ts";
import { whyOf } from "../../api/client.ts";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { SmallButton } from "../../parts/Group.tsx";
import { newId } from "../../saving/id.ts";

/** What travels with the way to a blade: a sum that is put into it there, where it can be undone. */
export interface PutState {
  readonly sum: string;
  readonly given: Given;
}

/** Takes an answer over: as a new blade, or into one of the rack. */
export function PutInto({
  sum,
  given,
  answer,
}: {
  sum: Sum;
  given: Given;
  answer: Answer & { state: "answered" };
}) {
  const unit = useSettings((settings) => settings.unit);
  const navigate = useNavigate();
  const [why, setWhy] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const { data: blades } = useBladeNames();
  if (!answer.put || !answer.blade) return null;
  const { put, blade } = answer;
  const make = async () => {
    const made = knifeFrom(blade, put, sum.name);
    if (!made.ok) return setWhy(`${inUnit(made.because, unit)}.`);
    setIsBusy(true);
    const id = newId();
    try {
      await createBlade(id, made.blade);
      navigate(`/blades/${id}/grind`);
    } catch (error) {
      setWhy(`${whyOf(error)} No blade was made; the sum stands.`);
      setIsBusy(false);
    }
  };
  return (
    <>
      <SmallButton onClick={() => void make()} isOff={isBusy}>
        Make it a blade
      </SmallButton>
      {blades && blades.length > 0 && (
        <select
          aria-label="Put it into a blade"
          className="h-7 max-w-44 rounded border border-frame bg-sheet px-1 text-xs font-semibold"
          value=""
          onChange={(event) => {
            const id = event.currentTarget.value;
            const state: PutState = { sum: sum.key, given };
            if (id) navigate(`/blades/${id}/grind`, { state: { put: state } });
          }}
        >
          <option value="">Put it into …</option>
          {blades.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
      {why && <Alert>{why}</Alert>}
    </>
  );
}
