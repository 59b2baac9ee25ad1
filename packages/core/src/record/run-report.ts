import { instrumentFor } from "../inspect/figure.ts";
import { QUANTITY } from "../inspect/quantity.ts";
import { expectedReading } from "../inspect/reader.ts";
import type { ChartedPlace } from "../inspect/run-schema.ts";
import {
  type Capability,
  capability,
  DRIFTS_BELOW,
  type Drift,
  driftOf,
  type IndividualsChart,
  individualsChart,
} from "../inspect/runs.ts";
import { type Spot, sideWords, spotKey } from "../inspect/schema.ts";
import { benchSteel, targetAt } from "../inspect/target.ts";
import type { RunReadings } from "../registry/contract.ts";
import { stageName } from "../route/stages.ts";
import { instrumentsOf } from "../shop/instruments.ts";
import type { Shop } from "../shop/schema.ts";

/** One place of a run over all its blades. */
export interface PlaceReport {
  readonly place: ChartedPlace;
  readonly name: string;
  readonly unit: "mm" | "°" | "HRC";
  /** What is wanted there and half its band; null where this blade has nothing to read there. */
  readonly target: { readonly value: number; readonly band: number; readonly x: number } | null;
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
    const stage = specification ? benchSteel(specification.file, route, shop, place.stage) : null;
    const target = stage && targetAt(stage, place.spot);
    const key = spotKey(place.spot);
    const bias = (id: string | undefined) => {
      const instrument = instrumentFor(place.spot, id, instruments);
      const shown = stage && target ? expectedReading(stage, place.spot, instrument) : null;
      return shown === null ? instrument.error + instrument.zero : shown - target!.value;
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
      name: placeName(stageName(route, place.stage), place.spot, target?.x ?? null),
      unit: QUANTITY[place.spot.what].unit,
      target: target && { value: target.value, band: target.band, x: target.x },
      points,
      chart: values.length >= 2 ? individualsChart(values) : null,
      capability: target ? capability(values, target.value - target.band, target.value + target.band) : null,
      drift: driftOf(values),
      first: values[0] ?? null,
      last: values.at(-1) ?? null,
    };
  });
  const drifting = places.find(({ drift }) => drift !== null && drift.chance < DRIFTS_BELOW);
  return {
    places,
    drifts: drifting
      ? `${drifting.name} drifts by ${drifting.drift!.perBlade > 0 ? "+" : "−"}${Math.abs(drifting.drift!.perBlade).toFixed(4)} ${drifting.unit} a blade: look at ${stageName(route, drifting.place.stage).toLowerCase()}, its set-up and its belts.`
      : null,
  };
}

type RunRoute = Parameters<typeof benchSteel>[1];

/** A place in words. */
export function placeName(stage: string, spot: Spot, x: number | null): string {
  const at = QUANTITY[spot.what].at === "whole" || x === null ? "" : ` at ${Math.round(x)} mm`;
  return `${stage}: ${QUANTITY[spot.what].name}${sideWords(spot)}${at}`;
}
