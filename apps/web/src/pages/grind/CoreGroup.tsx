import { useFilePart } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";

/** Share of the stock that a core is at first. Common practice: about a third. */
const SHARE = 1 / 3;

/** A laminated blade's hard middle: where it comes out of the faces is drawn on the side view. */
export function CoreGroup() {
  const { edit, press, visit } = useEdit();
  const core = useFilePart((file) => file.core);
  return (
    <Group title="Core">
      {!core && (
        <>
          <p className="text-xs text-faint">One steel throughout.</p>
          <div>
            <SmallButton
              onClick={() =>
                press((copy) => {
                  const thick = Math.max(...copy.thickness.map(({ t }) => t));
                  copy.core = { t: Math.max(0.1, Math.round(thick * SHARE * 10) / 10), offset: 0 };
                })
              }
            >
              It is laminated
            </SmallButton>
          </div>
        </>
      )}
      {core && (
        <>
          <LengthBox
            label="Core, thick"
            value={core.t}
            onVisit={visit}
            onCommit={(t) =>
              edit((copy) => {
                copy.core!.t = t;
              })
            }
          />
          <LengthBox
            label="Core, off centre, + right"
            value={core.offset}
            onVisit={visit}
            onCommit={(offset) =>
              edit((copy) => {
                copy.core!.offset = offset;
              })
            }
          />
          <p className="text-xs text-faint">
            Its line is drawn on the side view, and what a tenth more or less of its thickness makes of it: a
            starting value.
          </p>
          <div>
            <SmallButton onClick={() => press((copy) => void delete copy.core)}>Not laminated</SmallButton>
          </div>
        </>
      )}
    </Group>
  );
}
