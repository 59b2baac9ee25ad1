import { COOL_BY } from "@true-spine/core/heat/recipe.ts";
import { CONTROLS, type HeatOp, QUENCHES, SLOW, ZONES } from "@true-spine/core/heat/schema.ts";
import { isByTorch, type OpReport, TORCH_WORDS } from "@true-spine/core/route/heat-report.ts";
import { SEVERITY } from "@true-spine/core/steel/hardenability.ts";
import { colourAt, colourInWords } from "@true-spine/core/units/colours.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { showTemperature } from "@true-spine/core/units/temperature.ts";
import { useSettings } from "../../app/settings.ts";
import { MinutesBox, NumberRow, TemperatureBox } from "../../parts/Box.tsx";
import { Choice, Group } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";
import { useHeat } from "./useHeat.ts";

const same = (names: readonly string[]) => names.map((name) => ({ value: name, name }));
const isSame = (a: readonly number[], b: readonly number[] | undefined) => a[0] === b?.[0] && a[1] === b?.[1];
const QUENCHED_IN: Readonly<Record<string, HeatOp["medium"]>> = {
  oil: "oil",
  water: "water",
  brine: "brine",
  air: "air",
};
const AIR_NAMES = { air: "open air", rich: "a rich forge", coat: "a coat", foil: "foil" } as const;

/** A bare number above it may be °F: it is asked about, °C. */
const HOTTEST_TEMPER = 300;
/** Below it steel does not glow, °C: common practice. */
const GLOWS = 550;

/** What is chosen of one heat, and what that comes to. */
export function OpGroup({ report }: { report: OpReport }) {
  const { visit, changeOp, pressOp, opOf } = useHeat();
  const { name, window, sections, setTo } = report;
  // The report is a moment behind what is chosen.
  const op = opOf(report.op.id) ?? report.op;
  const looks = op.said === undefined ? colourAt(op.T) : null;
  const unit = useSettings((settings) => settings.unit);
  const { shop } = useShop();
  const own = shop.quenchants?.find(({ H, medium }) => medium === op.medium && isSame(H, op.H));
  const quenchant = Object.entries(SEVERITY).find(([, H]) => isSame(H, op.H))?.[0];
  const ovens = shop.ovens ?? [];
  const oven = ovens.find(({ id }) => id === op.oven);
  return (
    <Group title={name}>
      <TemperatureBox
        label="How hot"
        value={op.T}
        plainUpTo={op.kind === "temper" ? HOTTEST_TEMPER : undefined}
        onVisit={visit}
        said={op.said}
        onCommit={(T, said) => (T < 20 || T > 1300 ? "From 20 to 1300 °C." : changeOp(op.id, { T, said }))}
      />
      {ovens.length > 0 && (
        <Choice
          label="Heated in"
          value={oven?.id ?? ""}
          options={[
            { value: "", name: `any ${op.by}` },
            ...ovens.map(({ id, name: called }) => ({ value: id, name: called })),
          ]}
          onChange={(id) => {
            const ours = ovens.find((one) => one.id === id);
            pressOp(op.id, ours ? { oven: ours.id, by: ours.by, air: ours.air } : { oven: undefined });
          }}
        />
      )}
      {setTo !== report.op.T && (
        <p className="text-sm">
          Set it to <strong>{showTemperature(setTo)}</strong>: it reads{" "}
          {Math.round(Math.abs(setTo - report.op.T))} °C {setTo > report.op.T ? "high" : "low"}.
        </p>
      )}
      {looks && (
        <p className="text-sm text-faint">
          Looks {colourInWords(looks)}
          {op.T < GLOWS ? "; after an hour the same colour may mean 30 °C less" : ", in the shade"}.
        </p>
      )}
      {isByTorch(op) || op.kind === "clay" ? (
        isByTorch(op) && <p className="text-sm">{TORCH_WORDS}</p>
      ) : (
        <MinutesBox
          label="Held, once through"
          value={op.minutes}
          onVisit={visit}
          onCommit={(minutes) => changeOp(op.id, { minutes })}
        />
      )}
      {op.kind === "harden" ? (
        <Choice
          label="Into"
          value={own?.id ?? quenchant ?? ""}
          options={[
            ...(own || quenchant ? [] : [{ value: "", name: "as given" }]),
            ...(shop.quenchants ?? []).map(({ id, name: called }) => ({ value: id, name: called })),
            ...same(Object.keys(SEVERITY)),
          ]}
          onChange={(key) => {
            const ours = shop.quenchants?.find(({ id }) => id === key);
            if (ours) {
              const mediumT = ours.T === undefined ? {} : { mediumT: ours.T };
              pressOp(op.id, { H: [...ours.H], medium: ours.medium, ...mediumT });
              return;
            }
            const H = SEVERITY[key as keyof typeof SEVERITY];
            const medium = QUENCHED_IN[key.split(",")[0]!];
            if (H && medium) pressOp(op.id, { H: [...H], medium });
          }}
        />
      ) : (
        op.medium && (
          <Choice
            label="Cooled in"
            value={op.medium}
            options={mediaFor(op.kind)}
            onChange={(medium) => pressOp(op.id, { medium: medium as HeatOp["medium"] })}
          />
        )
      )}
      {op.medium === "oven" && (
        <NumberRow
          label="Cooling rate, °C per hour"
          value={op.coolBy ?? COOL_BY}
          least={5}
          most={100}
          onChange={(coolBy) => void changeOp(op.id, { coolBy })}
        />
      )}
      <Choice
        label="Which part"
        value={op.zone}
        options={same(ZONES)}
        onChange={(zone) => pressOp(op.id, { zone: zone as HeatOp["zone"] })}
      />
      <Choice
        label="Judged by"
        value={op.control}
        options={[
          { value: CONTROLS[0], name: "a thermometer" },
          { value: CONTROLS[1], name: "its colour" },
          { value: CONTROLS[2], name: "a magnet alone" },
        ]}
        onChange={(control) => pressOp(op.id, { control: control as HeatOp["control"] })}
      />
      {op.kind !== "temper" && op.kind !== "clay" && (
        <Choice
          label="Air at it"
          value={op.air ?? "air"}
          options={Object.entries(AIR_NAMES).map(([value, name]) => ({ value, name }))}
          onChange={(air) => pressOp(op.id, { air: air as HeatOp["air"] })}
        />
      )}
      {window !== null && (
        <p className="text-sm">
          From the oven to the quench: <strong>{window.toFixed(1)} s</strong>, until the edge is too cool. ±
          25 %.
        </p>
      )}
      {sections.map(({ place, thick, q, fares }) => (
        <p key={place} className="text-sm">
          The {place}, {showLengthWithUnit(thick, unit)}: <strong>{fares}</strong>{" "}
          <span className="text-faint">
            (goes through at {q[0].toFixed(1)} to {q[1].toFixed(1)} times that)
          </span>
        </p>
      ))}
      {op.expect && (
        <p className="text-sm">
          {op.expect[0] === op.expect[1] ? op.expect[0] : `${op.expect[0]} to ${op.expect[1]}`} HRC expected:{" "}
          {op.source ?? "nobody says from where"}.
        </p>
      )}
    </Group>
  );
}

const SLOW_NAMES = { oven: "the oven, switched down", insulated: "ash, vermiculite or dry sand" } as const;

/** An anneal cools slowly, and nothing else does. */
const mediaFor = (kind: HeatOp["kind"]) =>
  kind === "anneal"
    ? SLOW.map((value) => ({ value, name: SLOW_NAMES[value] }))
    : QUENCHES.map((value) => ({ value, name: value }));
