import { edgeOf, KNIFE_PLACES, type Knife, type KnifePlace } from "@true-spine/core/edge/knives.ts";
import { OWN_PURPOSE, PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { useState } from "react";
import { useNavigate } from "react-router";
import { AngleBox, LengthBox, NumberRow } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { NameBox } from "../../parts/NameBox.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

type Way = "d" | "f" | "angle";
const WAYS: Readonly<Record<Way, string>> = { d: "its height", f: "its face", angle: "its angle" };

/** One knife as it was measured. Every figure is taken as it is typed. */
export function KnifeGroup({
  knife,
  put,
  onRemove,
}: {
  knife: Knife;
  put: (knife: Knife) => string | null;
  onRemove: () => void;
}) {
  const navigate = useNavigate();
  const length = (
    label: string,
    value: number | undefined,
    most: number,
    change: (mm: number | undefined) => Knife,
  ) => (
    <LengthBox
      label={label}
      value={value ?? 0}
      onCommit={(mm) => {
        if (mm > most) return `${most} mm at most.`;
        return put(change(mm === 0 ? undefined : mm));
      }}
    />
  );
  const place = (i: number, change: KnifePlace | null) => {
    const places = change
      ? knife.places.map((one, k) => (k === i ? change : one))
      : knife.places.filter((_, k) => k !== i);
    return put({ ...knife, places });
  };
  const free = KNIFE_PLACES.find((at) => knife.places.every((one) => one.at !== at));
  return (
    <Group title={knife.name} aside={<SmallButton onClick={onRemove}>Remove it</SmallButton>}>
      <div className="flex items-center justify-between gap-2 text-sm text-faint">
        <span aria-hidden>Name</span>
        <NameBox
          label="Name of the knife"
          labelled="hidden"
          className="w-52"
          maxLength={120}
          name={knife.name}
          onName={(name) => void put({ ...knife, name })}
        />
      </div>
      {length("Blade, long", knife.length, 1000, (mm) => ({ ...knife, length: mm ?? knife.length }))}
      <NumberRow
        label="All of it, g (0: not weighed)"
        value={knife.mass ?? 0}
        least={0}
        most={5000}
        onChange={(mass) =>
          void put(without({ ...knife, ...(mass > 0 ? { mass } : {}) }, mass > 0 ? [] : ["mass"]))
        }
      />
      <Choice
        label="For"
        value={knife.use ?? ""}
        options={[
          { value: "", name: "not said" },
          ...PURPOSES.filter(({ key }) => key !== OWN_PURPOSE.key).map(({ key, name }) => ({
            value: key,
            name,
          })),
        ]}
        onChange={(use) => void put(without({ ...knife, ...(use ? { use } : {}) }, use ? [] : ["use"]))}
      />
      {knife.places.map((one, i) => (
        <PlaceBoxes
          key={one.at}
          place={one}
          put={(next) => place(i, next)}
          onRemove={knife.places.length > 1 ? () => void place(i, null) : null}
        />
      ))}
      {free && (
        <SmallButton
          onClick={() => void put({ ...knife, places: [...knife.places, { ...knife.places[0]!, at: free }] })}
        >
          Also read at the {free}
        </SmallButton>
      )}
      {length("5 mm up, thick (0: not read)", knife.t5, 25, (t5) =>
        without({ ...knife, ...(t5 ? { t5 } : {}) }, t5 ? [] : ["t5"]),
      )}
      {length("10 mm up, thick (0: not read)", knife.t10, 25, (t10) =>
        without({ ...knife, ...(t10 ? { t10 } : {}) }, t10 ? [] : ["t10"]),
      )}
      <Verdict key={knife.id} knife={knife} put={put} />
      <SmallButton onClick={() => navigate(`/new?knife=${knife.id}`)}>Make it a blade</SmallButton>
    </Group>
  );
}

function without<K extends keyof Knife>(knife: Knife, keys: readonly K[]): Knife {
  const copy = { ...knife };
  for (const key of keys) delete copy[key];
  return copy;
}

function PlaceBoxes({
  place,
  put,
  onRemove,
}: {
  place: KnifePlace;
  put: (place: KnifePlace) => string | null;
  onRemove: (() => void) | null;
}) {
  const way: Way = place.d !== undefined ? "d" : place.f !== undefined ? "f" : "angle";
  const { e, at } = place;
  const edge = edgeOf(place);
  const said = (next: Way): KnifePlace => {
    const round = (value: number) => Math.round(value * 1000) / 1000;
    if (next === "d") return { at, e, d: round(edge.d) };
    return next === "f"
      ? { at, e, f: round(Math.hypot(edge.d, e / 2)) }
      : { at, e, angle: round(edge.angle) };
  };
  return (
    <fieldset className="flex flex-col gap-2 border-t border-rule pt-2">
      <legend className="float-left text-xs font-bold">At the {at}</legend>
      <LengthBox
        label={`Behind the edge, ${at}`}
        value={e}
        onCommit={(mm) => (mm <= 0 || mm > 10 ? "Above 0, to 10 mm." : put({ ...place, e: mm }))}
      />
      <Segmented
        label={`Its edge bevel by, ${at}`}
        options={["d", "f", "angle"]}
        value={way}
        names={WAYS}
        onChange={(next) => void put(said(next))}
      />
      {way === "angle" ? (
        <AngleBox
          label={`Edge angle a side, ${at}`}
          value={place.angle!}
          onCommit={(angle) => (angle <= 0 || angle > 60 ? "Above 0, to 60°." : put({ at, e, angle }))}
        />
      ) : (
        <LengthBox
          label={`Edge bevel, ${way === "d" ? "high" : "along its face"}, ${at}`}
          value={place[way]!}
          onCommit={(mm) => (mm <= 0 || mm > 30 ? "Above 0, to 30 mm." : put({ at, e, [way]: mm }))}
        />
      )}
      {onRemove && <SmallButton onClick={onRemove}>Not read at the {at}</SmallButton>}
    </fieldset>
  );
}

function Verdict({ knife, put }: { knife: Knife; put: (knife: Knife) => string | null }) {
  const [text, setText] = useState(knife.verdict ?? "");
  const [why, setWhy] = useState<string | null>(null);
  return (
    <TextBox
      label="How it cuts"
      width="w-52"
      maxLength={500}
      text={text}
      why={why}
      onText={(next) => {
        setText(next);
        const trimmed = next.trim();
        setWhy(put(trimmed ? { ...knife, verdict: trimmed } : without(knife, ["verdict"])));
      }}
    />
  );
}
