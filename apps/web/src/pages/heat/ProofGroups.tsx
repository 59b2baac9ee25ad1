import { type FileProof, GRAINS, PLACES, type Proof, SEEN_BY_FILE } from "@true-spine/core/heat/schema.ts";
import type { HeatReport, OpReport } from "@true-spine/core/route/heat-report.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { showTemperature } from "@true-spine/core/units/temperature.ts";
import { proofsAt } from "@true-spine/core/work/joined.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useRail, useScreen } from "../../blade/screen.ts";
import { LengthBox, TemperatureBox } from "../../parts/Box.tsx";
import { Group, RecordButton } from "../../parts/Group.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { SAW_NAMES, useProofs } from "../../work/useProofs.ts";
import { record, useWorkRows } from "../../work/useWorkRows.ts";

const SAW_BUTTONS: Readonly<Record<FileProof["saw"], string>> = {
  skates: "It skates",
  bites: "It bites",
  mixed: "Half and half",
};

/** What a file does on it after the quench: at the edge first. */
export function FileGroup({ op }: { op: string }) {
  const screen = useScreen();
  const last = useProofs(op);
  const [place, setPlace] = useState<FileProof["place"]>("edge");
  const scribe = useRail((state) => state.scribe);
  const said = PLACES.flatMap((where) => {
    const one = last(where);
    return one ? [`${where} ${SAW_NAMES[one]}`] : [];
  });
  const where = place === "tang" ? {} : { x: Math.round(scribe * 10) / 10 };
  return (
    <Group title="File, after the quench">
      <Segmented label="Where" options={[...PLACES]} value={place} onChange={setPlace} />
      {place !== "tang" && (
        <LengthBox
          label="From the junction"
          value={scribe}
          onCommit={(x) => {
            screen.rail.setState({ scribe: x });
            return null;
          }}
        />
      )}
      <div className="flex flex-wrap gap-2">
        {SEEN_BY_FILE.map((saw) => (
          <RecordButton
            key={saw}
            onClick={() => record(screen, { stage: op, what: "proof", place, saw, ...where })}
          >
            {SAW_BUTTONS[saw]}
          </RecordButton>
        ))}
      </div>
      <p className="text-sm text-faint" role="status">
        {said.length > 0 ? `${said.join(", ")}.` : "Not tried yet."}
      </p>
    </Group>
  );
}

/** A coupon of the same bar at three heats, and how deep the skin was found. */
export function CouponGroup({ report, chosen }: { report: HeatReport; chosen: OpReport }) {
  const screen = useScreen();
  const rows = useWorkRows();
  const unit = useSettings((settings) => settings.unit);
  const heats = report.steel?.coupons ?? [];
  const [T, setT] = useState(heats[0] ?? chosen.op.T);
  const [deep, setDeep] = useState(0);
  const proofs = proofsAt(rows).filter(({ what }) => what !== "file");
  const stage = chosen.op.id;
  return (
    <Group title="Coupon and skin">
      {heats.length > 0 && (
        <p className="text-sm text-faint">
          Same bar, same thickness, at {heats.map((heat) => showTemperature(heat)).join(", ")}: the hardest
          with the finest grain is its own.
        </p>
      )}
      <TemperatureBox
        label="Coupon hardened at"
        value={T}
        onCommit={(celsius) => {
          if (celsius < 20 || celsius > 1300) return "From 20 to 1300 °C.";
          setT(celsius);
          return null;
        }}
      />
      <div className="flex flex-wrap gap-2">
        {SEEN_BY_FILE.map((saw) => (
          <RecordButton key={saw} onClick={() => record(screen, { stage, what: "coupon", T, saw })}>
            {`File ${SAW_NAMES[saw]}`}
          </RecordButton>
        ))}
        {GRAINS.filter((grain) => grain !== "mixed").map((grain) => (
          <RecordButton key={grain} onClick={() => record(screen, { stage, what: "snap", T, grain })}>
            {`Snapped: ${grain} grain`}
          </RecordButton>
        ))}
      </div>
      <LengthBox
        label="Skin, as deep as it was found"
        value={deep}
        onCommit={(value) => {
          if (value < 0 || value > 3) return "From 0 to 3 mm.";
          setDeep(value);
          return null;
        }}
      />
      <p className="text-xs text-faint">
        Grind a face by {showLengthWithUnit(0.05, unit)} at a time until file or tester changes no more.
      </p>
      <RecordButton isOff={deep <= 0} onClick={() => record(screen, { stage, what: "skin", mm: deep })}>
        Write the skin down
      </RecordButton>
      {proofs.length > 0 && (
        <ul className="text-sm" aria-label="Coupons and skins">
          {proofs.map((one) => (
            <li key={`${one.when} ${one.what}`}>{told(one, (mm) => showLengthWithUnit(mm, unit))}</li>
          ))}
        </ul>
      )}
    </Group>
  );
}

function told(proof: Proof, length: (mm: number) => string): string {
  switch (proof.what) {
    case "coupon":
      return `Coupon at ${showTemperature(proof.T)}: file ${SAW_NAMES[proof.saw]}.`;
    case "snap":
      return `Coupon at ${showTemperature(proof.T)}: ${proof.grain} grain.`;
    case "skin":
      return `Skin found ${length(proof.mm)} deep.`;
    case "file":
      return `${proof.place}: ${SAW_NAMES[proof.saw]}.`;
  }
}
