import type { RunReadings } from "../contract.ts";
import { STAGES } from "../route/stages.ts";
import type { Shop } from "../shop/schema.ts";
import { instrumentFor } from "./figure.ts";
import { instrumentsOf } from "./instruments.ts";
import { QUANTITY } from "./quantity.ts";
import type { ChartedPlace } from "./run-schema.ts";
import {
  type Capability,
  capability,
  DRIFTS_BELOW,
  type Drift,
  driftOf,
  type IndividualsChart,
  individualsChart,
} from "./runs.ts";
import { type Spot, spotKey } from "./schema.ts";
import { jawBias, stageSteel, wantedAt } from "./wanted.ts";

/** One place of a run over all its blades. */
export interface PlaceReport {
  readonly place: ChartedPlace;
  readonly name: string;
  readonly unit: "mm" | "°" | "HRC";
  /** What is wanted there and half its band; null where this blade has nothing to read there. */
  readonly wanted: { readonly value: number; readonly band: number; readonly x: number } | null;
  /** The blades that were read there, in the order they were made. */
  readonly points: readonly {
    readonly id: string;
    readonly blade: string;
    readonly value: number;
    readonly count: number;
  }[];
  readonly chart: IndividualsChart | null;
  readonly capability: Capability | null;
  readonly drift: Drift | null;
  readonly first: number | null;
  readonly last: number | null;
}

export interface RunReport {
  readonly places: readonly PlaceReport[];
  /** The first stage at which a place drifts, in words; null where none does. */
  readonly drifts: string | null;
}

/** Works out every place of a run. Bands are the first blade's: all are of one specification. */
export function runReport(
  { file, blades, specification, readings }: RunReadings,
  route: RunRoute,
  shop: Shop,
): RunReport {
  const instruments = instrumentsOf(shop);
  const places = file.places.map((place): PlaceReport => {
    const steel = specification ? stageSteel(specification.file, route, shop, place.stage) : null;
    const wanted = steel && wantedAt(steel, place.spot);
    const key = spotKey(place.spot);
    const bias = (id: string | undefined) => {
      const { error, zero, jaw, kind } = instrumentFor(place.spot, id, instruments);
      return error + zero + (steel && kind === "caliper" ? jawBias(steel, place.spot, jaw ?? 0) : 0);
    };
    const points = blades.flatMap(({ id, name }) => {
      const own = readings.filter(
        ({ bladeId, reading }) => bladeId === id && reading.stage === place.stage && spotKey(reading) === key,
      );
      if (own.length === 0) return [];
      const values = own.map(({ reading }) => reading.value - bias(reading.instrument));
      const value = values.reduce((sum, one) => sum + one, 0) / values.length;
      return [{ id, blade: name, value, count: own.length }];
    });
    const values = points.map(({ value }) => value);
    return {
      place,
      name: placeName(place.stage, place.spot, wanted?.x ?? null),
      unit: QUANTITY[place.spot.what].unit,
      wanted: wanted && { value: wanted.value, band: wanted.band, x: wanted.x },
      points,
      chart: values.length >= 2 ? individualsChart(values) : null,
      capability: wanted ? capability(values, wanted.value - wanted.band, wanted.value + wanted.band) : null,
      drift: driftOf(values),
      first: values[0] ?? null,
      last: values.at(-1) ?? null,
    };
  });
  const drifting = places.find(({ drift }) => drift !== null && drift.chance < DRIFTS_BELOW);
  return {
    places,
    drifts: drifting
      ? `${drifting.name} drifts by ${drifting.drift!.perBlade > 0 ? "+" : "−"}${Math.abs(drifting.drift!.perBlade).toFixed(4)} ${drifting.unit} a blade: look at ${STAGES[drifting.place.stage].name.toLowerCase()}, its set-up and its belts.`
      : null,
  };
}

type RunRoute = Parameters<typeof stageSteel>[1];

/** A place in words. */
export function placeName(stage: ChartedPlace["stage"], spot: Spot, x: number | null): string {
  const side = spot.side ? `, ${spot.side}` : "";
  const at = QUANTITY[spot.what].at === "whole" || x === null ? "" : ` at ${Math.round(x)} mm`;
  return `${STAGES[stage].name}: ${QUANTITY[spot.what].name}${side}${at}`;
}
