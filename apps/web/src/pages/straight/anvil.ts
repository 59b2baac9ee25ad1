import type { SetKind, StraightSet } from "@true-spine/core/straight/schema.ts";
import { useEffect, useState } from "react";
import { send } from "../../api/client.ts";

/** A piece as it is laid on the simulated anvil: see docs/instruments.md. mm, degrees. */
export interface Laid {
  readonly height: number;
  readonly at: number | null;
  readonly twist: number;
  readonly isClad: boolean;
  readonly rule: number;
}

/** The piece that lies on the simulated anvil for a blade; null where none does, or nobody answers. */
export function useLaid(id: string): [Laid | null, (laid: Laid) => void] {
  const [laid, setLaid] = useState<Laid | null>(null);
  useEffect(() => {
    send<{ laid: Laid | null }>("GET", `/anvil/${id}`).then(
      // What was laid since it was asked stays.
      ({ laid: lies }) => setLaid((now) => now ?? lies),
      () => {},
    );
  }, [id]);
  return [laid, setLaid];
}

export async function readAnvil(
  id: string,
  {
    stage,
    kind,
    face,
    xs,
    y,
  }: { stage: string; kind: SetKind; face: StraightSet["face"]; xs: readonly number[]; y: number },
): Promise<StraightSet["rows"]> {
  const places = xs.map((x) => ({ x, y }));
  const { rows } = await send<{ rows: StraightSet["rows"] }>("POST", `/anvil/${id}/read`, {
    stage,
    kind,
    face,
    places,
  });
  return rows;
}
