import type { LaidPiece } from "@true-spine/core/straight/schema.ts";
import { useState } from "react";
import { send, whyOf } from "../../api/client.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox, NumberBox } from "../../parts/Box.tsx";
import { Group, RecordButton } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";

/** A simulated piece to try it on: bent as it is told, and bent again by every blow that is written down. */
export function AnvilGroup({ laid, onLaid }: { laid: LaidPiece | null; onLaid: (laid: LaidPiece) => void }) {
  const { id } = useScreen();
  const { ring } = fieldOf(useFile());
  const [piece, setPiece] = useState<LaidPiece>(
    laid ?? { height: 0.5, at: Math.round(ring.right / 2), twist: 0, isClad: false, rule: 0 },
  );
  const [why, setWhy] = useState<string | null>(null);
  const change = (part: Partial<LaidPiece>) => {
    setPiece({ ...piece, ...part });
    return null;
  };
  const within = (value: number, most: number, part: Partial<LaidPiece>) =>
    Math.abs(value) > most ? `From −${most} to ${most}.` : change(part);
  return (
    <Group title="Simulated anvil">
      <p className="text-xs text-faint">
        A made-up piece to learn on: it is bent as you say here, and again by every blow written down. Nothing
        of it is the blade's own.
      </p>
      <LengthBox
        label="Bent high, its middle to the right"
        value={piece.height}
        onCommit={(height) => within(height, 20, { height })}
      />
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={piece.at === null}
          onChange={(event) =>
            change({ at: event.currentTarget.checked ? null : Math.round(ring.right / 2) })
          }
        />
        evenly along it
      </label>
      {piece.at !== null && (
        <LengthBox
          label="Bent at, from the junction"
          value={piece.at}
          onCommit={(at) => (at < 1 || at > ring.right ? "On the blade." : change({ at }))}
        />
      )}
      <div className="flex items-center justify-between gap-2 text-sm text-faint">
        Turned heel to tip, °
        <NumberBox
          label="Turned heel to tip"
          value={piece.twist}
          least={-45}
          most={45}
          unit="°"
          onChange={(twist) => change({ twist })}
        />
      </div>
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={piece.isClad}
          onChange={(event) => change({ isClad: event.currentTarget.checked })}
        />
        a hard core in soft sides
      </label>
      <LengthBox
        label="Its straightedge is bent by"
        value={piece.rule}
        onCommit={(rule) => within(rule, 5, { rule })}
      />
      {why && <Alert>{why}</Alert>}
      <RecordButton
        onClick={() =>
          send("PUT", `/anvil/${id}`, piece).then(
            () => {
              setWhy(null);
              onLaid(piece);
              useNotices.getState().tell("The simulated piece lies on the anvil.");
            },
            (error) => setWhy(whyOf(error)),
          )
        }
      >
        {laid ? "Lay another piece on the anvil" : "Lay it on the anvil"}
      </RecordButton>
      {laid && (
        <p className="text-sm" role="status">
          A simulated piece lies on it.
        </p>
      )}
    </Group>
  );
}
