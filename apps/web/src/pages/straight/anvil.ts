import type { LaidPiece, SetKind, StraightSet } from "@true-spine/core/straight/schema.ts";
import { useEffect, useState } from "react";
import { send } from "../../api/client.ts";

/** The piece that lies on the simulated anvil for a blade; null where none does, or nobody answers. */
export function useLaid(id: string): [LaidPiece | null, (laid: LaidPiece) => void] {
  const [laid, setLaid] = useState<LaidPiece | null>(null);
  useEffect(() => {
    send<{ laid: LaidPiece | null }>("GET", `/anvil/${id}`).then(
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
