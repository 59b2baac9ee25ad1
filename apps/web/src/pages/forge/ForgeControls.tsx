import { forgingRange, HAMMER } from "@true-spine/core/forge/heat.ts";
import { stockOfRound } from "@true-spine/core/route/bar.ts";
import type { StoredBar } from "@true-spine/core/shop/schema.ts";
import { colourAt, colourInWords, colourNamed } from "@true-spine/core/units/colours.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useFilePart } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox, NumberBox, ShareBox, TemperatureBox } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";
import { useForge } from "./useForge.ts";

/** The bar it is forged from: the route's own. */
export function BarGroup({ isAsked }: { isAsked: boolean }) {
  const { route, forge, visit, putBar, put } = useForge();
  const [why, setWhy] = useState<string | null>(null);
  const { shop } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number) => showLength(mm, unit);
  const isRound = route.bar?.diameter !== undefined;
  return (
    <Group title="Bar">
      {isAsked && <p className="text-xs">How wide is it? The length to cut follows.</p>}
      {(shop.bars ?? []).length > 0 && (
        <Choice
          label="From the stock"
          value=""
          options={[
            { value: "", name: "choose …" },
            ...(shop.bars ?? []).map((one) => ({ value: one.id, name: storedName(one, say) })),
          ]}
          onChange={(id) => {
            const one = shop.bars?.find((bar) => bar.id === id);
            if (!one) return;
            setWhy(
              one.d === undefined
                ? putBar({
                    diameter: undefined,
                    width: one.w ?? 38,
                    stock: one.t ?? 6.35,
                    length: one.length,
                    corner: undefined,
                  })
                : putBar({
                    diameter: one.d,
                    width: undefined,
                    corner: undefined,
                    stock: stockOfRound(one.d),
                    length: one.length,
                  }),
            );
          }}
        />
      )}
      <Choice
        label="Its shape"
        value={isRound ? "round" : "flat"}
        options={[
          { value: "flat", name: "flat or square" },
          { value: "round", name: "round" },
        ]}
        onChange={(shape) =>
          setWhy(
            shape === "round"
              ? putBar({ diameter: 25, width: undefined, corner: undefined, stock: stockOfRound(25) })
              : putBar({ diameter: undefined, width: 25.4 }),
          )
        }
      />
      {isRound ? (
        <LengthBox
          label="Round, across"
          value={route.bar!.diameter!}
          onVisit={visit}
          onCommit={(diameter) => putBar({ diameter, stock: stockOfRound(diameter) })}
        />
      ) : (
        <>
          <LengthBox
            label="Bar, wide"
            value={route.bar?.width ?? 0}
            onVisit={visit}
            onCommit={(width) => putBar({ width })}
          />
          <LengthBox
            label="Bar, thick"
            value={route.stock}
            onVisit={visit}
            onCommit={(stock) => putBar({ stock })}
          />
          <LengthBox
            label="Its corners' radius"
            value={route.bar?.corner ?? 0}
            onVisit={visit}
            onCommit={(corner) => putBar({ corner: corner > 0 ? corner : undefined })}
          />
        </>
      )}
      <LengthBox
        label="In hand, long, 0 if enough"
        value={route.bar?.length ?? 0}
        onVisit={visit}
        onCommit={(length) => putBar({ length: length > 0 ? length : undefined })}
      />
      <LengthBox
        label="Lost to the cut"
        value={forge.kerf}
        onVisit={visit}
        onCommit={(kerf) => put((now) => ({ ...now, kerf }))}
      />
      {isRound && (
        <>
          <LengthBox
            label="Drawn flat to, wide, 0 as needed"
            value={forge.preform?.w ?? 0}
            onVisit={visit}
            onCommit={(w) =>
              put(({ preform, ...now }) => (w > 0 ? { ...now, preform: { t: preform?.t ?? 5, w } } : now))
            }
          />
          {forge.preform && (
            <LengthBox
              label="Drawn flat to, thick"
              value={forge.preform.t}
              onVisit={visit}
              onCommit={(t) => put((now) => ({ ...now, preform: { w: now.preform?.w ?? 30, t } }))}
            />
          )}
        </>
      )}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}

/** A bar of the stores in words. */
function storedName({ d, w, t, length }: StoredBar, say: (mm: number) => string): string {
  return `${d === undefined ? `${say(w ?? 0)} × ${say(t ?? 0)}` : `${say(d)} round`}, ${say(length)} long`;
}

/** What the fire leaves for everything after it. */
export function BlankGroup() {
  const { forge, visit, put } = useForge();
  const { blank } = forge;
  const change = (part: Partial<typeof blank>) =>
    put((now) => ({ ...now, blank: { ...now.blank, ...part } }));
  const grow = (key: keyof typeof blank.grow) => (mm: number) =>
    change({ grow: { ...blank.grow, [key]: mm } });
  return (
    <Group title="Left on the blank">
      <LengthBox
        label="On each flat"
        value={blank.flats}
        onVisit={visit}
        onCommit={(flats) => change({ flats })}
      />
      <LengthBox label="Edge left" value={blank.edge} onVisit={visit} onCommit={(edge) => change({ edge })} />
      <ShareBox
        label="Bevel up to, of the height"
        value={blank.share}
        onVisit={visit}
        onCommit={(share) => change({ share })}
      />
      <LengthBox
        label="Outside the spine"
        value={blank.grow.spine}
        onVisit={visit}
        onCommit={grow("spine")}
      />
      <LengthBox label="Outside the edge" value={blank.grow.edge} onVisit={visit} onCommit={grow("edge")} />
      <LengthBox label="Outside the tang" value={blank.grow.tang} onVisit={visit} onCommit={grow("tang")} />
      <LengthBox
        label="Plunge's radius"
        value={blank.radius}
        onVisit={visit}
        onCommit={(radius) => change({ radius })}
      />
      <p className="text-xs text-faint">Starting values, in the spirit of common practice.</p>
    </Group>
  );
}

/** How the point, the taper and the turn are dealt with. */
export function OrderGroup() {
  const { forge, visit, put, press } = useForge();
  const { turn, taper, point, order } = forge;
  const isTangFirst = order.indexOf("tang") >= 0 && order.indexOf("tang") < order.indexOf("point");
  return (
    <Group title="How it is worked">
      <Choice
        label="First"
        value={isTangFirst ? "tang" : "point"}
        options={[
          { value: "point", name: "the point" },
          { value: "tang", name: "the tang" },
        ]}
        onChange={(first) =>
          press((now) => {
            const rest = now.order.filter((step) => step !== "tang");
            const at = first === "tang" ? 0 : Math.min(rest.length, rest.indexOf("taper") + 1);
            return { ...now, order: [...rest.slice(0, at), "tang", ...rest.slice(at)] };
          })
        }
      />
      <Choice
        label="The point is"
        value={point.way}
        options={[
          { value: "forged", name: "forged" },
          { value: "cut", name: "cut, and the bar kept" },
        ]}
        onChange={(way) => press((now) => ({ ...now, point: { way: way as typeof point.way } }))}
      />
      <Choice
        label="Width, while it is drawn"
        value={taper.spread}
        options={[
          { value: "held", name: "edged back" },
          { value: "free", name: "left to spread" },
        ]}
        onChange={(spread) =>
          press((now) => ({
            ...now,
            taper: spread === "held" ? { spread: "held" } : { spread: "free", bite: 0.67 },
          }))
        }
      />
      {taper.spread === "free" && (
        <ShareBox
          label="Bite, of the bar's width"
          value={taper.bite ?? 0.67}
          onVisit={visit}
          onCommit={(bite) => put((now) => ({ ...now, taper: { ...now.taper, bite } }))}
        />
      )}
      <ShareBox
        label="Bent beforehand, of the turn"
        value={turn.before}
        onVisit={visit}
        onCommit={(before) =>
          put((now) => ({
            ...now,
            turn: { ...now.turn, before, after: Math.min(now.turn.after, 1 - before) },
          }))
        }
      />
      <ShareBox
        label="Straightened on wood"
        value={turn.after}
        onVisit={visit}
        onCommit={(after) =>
          put((now) => ({
            ...now,
            turn: { ...now.turn, after, before: Math.min(now.turn.before, 1 - after) },
          }))
        }
      />
      <p className="text-xs text-faint">What is in neither lifts the point, and is meant to.</p>
    </Group>
  );
}

/** How hot, and with what. */
export function FireGroup() {
  const { forge, visit, put } = useForge();
  const steel = useFilePart((file) => file.steel);
  const { shop, put: putShop } = useShop();
  const range = forgingRange(steel);
  const hammer = shop.hammers?.[0] ?? { id: "hand", name: "hand hammer", ...HAMMER };
  const { said } = forge.heat;
  const heat = (part: Partial<typeof forge.heat>) =>
    put((now) => ({ ...now, heat: { ...now.heat, ...part } }));
  return (
    <Group title="Fire and hammer">
      <TemperatureBox
        label="Out of the fire at"
        value={forge.heat.from}
        onVisit={visit}
        said={said?.from}
        onCommit={(from, colour) => heat({ from, said: compact({ ...said, from: colour }) })}
      />
      <TemperatureBox
        label="Stop at"
        value={forge.heat.stop}
        onVisit={visit}
        said={said?.stop}
        onCommit={(stop, colour) => heat({ stop, said: compact({ ...said, stop: colour }) })}
      />
      <p className="text-xs text-faint">
        From {colourWords(forge.heat.from, said?.from)} down to {colourWords(forge.heat.stop, said?.stop)}, by
        eye.{" "}
        {range
          ? `${steel} is worked from ${range.most} down to ${range.least} °C.`
          : `${steel ?? "This steel"} is not judged without its maker's sheet.`}{" "}
        A colour may be typed, or °F.
      </p>
      <div className="flex items-center justify-between gap-2 text-sm text-faint">
        <span>Hammer, kg</span>
        <NumberBox
          label="Hammer, kg"
          value={hammer.mass}
          least={0.2}
          most={500}
          onChange={(mass) => {
            putShop({ ...shop, hammers: [{ ...hammer, mass }, ...(shop.hammers ?? []).slice(1)] });
          }}
        />
      </div>
    </Group>
  );
}

/** A bolster that is left of the bar's own section; `beside` is how thick the blade is next to it, mm. */
export function BolsterGroup({ beside: thick }: { beside: number | null }) {
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  const { forge, route, visit, put, press } = useForge();
  const { bolster } = forge;
  if (!bolster)
    return (
      <Group title="Bolster">
        <div>
          <SmallButton
            onClick={() =>
              press((now) => ({ ...now, bolster: { from: -12, to: 0, d: route.bar?.diameter ?? 25 } }))
            }
          >
            Leave an integral bolster
          </SmallButton>
        </div>
      </Group>
    );
  const change = (part: Partial<typeof bolster>) =>
    put((now) => ({ ...now, bolster: { ...now.bolster!, ...part } }));
  return (
    <Group
      title="Bolster"
      aside={<SmallButton onClick={() => press(({ bolster: _, ...now }) => now)}>Remove</SmallButton>}
    >
      <LengthBox
        label="Bolster from"
        value={bolster.from}
        onVisit={visit}
        onCommit={(from) => change({ from })}
      />
      <LengthBox label="Bolster to" value={bolster.to} onVisit={visit} onCommit={(to) => change({ to })} />
      <LengthBox label="Bolster, across" value={bolster.d} onVisit={visit} onCommit={(d) => change({ d })} />
      <p className="text-xs text-faint">
        {thick === null
          ? "Set down on both faces alike"
          : `Set down by ${say((bolster.d - thick) / 2)} on each face`}
        : on one alone the blade would stand off centre.
      </p>
    </Group>
  );
}

function colourWords(celsius: number, said: string | undefined): string {
  const colour = (said === undefined ? null : colourNamed(said)) ?? colourAt(celsius);
  return colour ? colourInWords(colour) : "no colour";
}

/** The colours that were said; undefined where none were. */
function compact(said: { from?: string | undefined; stop?: string | undefined }) {
  const some = Object.entries(said).filter(([, value]) => value !== undefined);
  return some.length > 0 ? Object.fromEntries(some) : undefined;
}
