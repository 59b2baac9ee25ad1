import { firstHandle } from "@true-spine/core/design/first-handle.ts";
import { takesPin } from "@true-spine/core/handle/holes.ts";
import { MATERIALS } from "@true-spine/core/handle/materials.ts";
import { type Handle, type HandlePart, NO_HANDLE } from "@true-spine/core/handle/schema.ts";
import { useState } from "react";
import { useDocument, useFilePart, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";

const materials = MATERIALS.map(({ name }) => ({ value: name, name }));

/** What is put on the tang, as far as it weighs: the knife's balance is with it on. */
export function HandleGroup() {
  const { open } = useScreen();
  const handle = useDocument("handle");
  const holes = useFilePart((file) => file.holes);
  const [why, setWhy] = useState<string | null>(null);
  const put = (next: Handle) => whyNot(open.put({ handle: next }));
  const press = (next: Handle) => {
    open.end();
    setWhy(put(next));
  };
  const kind = handle.parts.some((part) => part.kind === "scales")
    ? "full"
    : handle.parts.length > 0
      ? "hidden"
      : "";
  const isPinned = handle.pins.length > 0;
  return (
    <Group title="Handle">
      <Choice
        label="On the tang"
        value={kind}
        options={[
          { value: "", name: "nothing yet" },
          { value: "full", name: "scales" },
          { value: "hidden", name: "guard and block" },
        ]}
        onChange={(value) => {
          const { file } = open.store.getState();
          press(value ? firstHandle(file, value as "full" | "hidden") : NO_HANDLE);
        }}
      />
      {handle.parts.map((part, i) => (
        <PartControls
          // biome-ignore lint/suspicious/noArrayIndexKey: a part is its position in the list
          key={i}
          part={part}
          put={(next) => put({ ...handle, parts: handle.parts.map((one, k) => (k === i ? next : one)) })}
        />
      ))}
      {kind === "full" && (
        <>
          {isPinned && (
            <Choice
              label={handle.pins.length === 1 ? "Pin of" : `${handle.pins.length} pins of`}
              value={handle.pins[0]!.material}
              options={materials}
              onChange={(material) =>
                press({ ...handle, pins: handle.pins.map((pin) => ({ ...pin, material })) })
              }
            />
          )}
          <div>
            <SmallButton
              onClick={() => {
                const { pins } = firstHandle(open.store.getState().file, "full");
                const material = handle.pins[0]?.material;
                press({ ...handle, pins: material ? pins.map((pin) => ({ ...pin, material })) : pins });
              }}
            >
              {holes?.some(takesPin) ? "A pin in every hole for one" : "No holes: no pins"}
            </SmallButton>
          </div>
        </>
      )}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}

function PartControls({ part, put }: { part: HandlePart; put: (next: HandlePart) => string | null }) {
  const { open } = useScreen();
  const { visit } = useEdit();
  const name = part.kind === "fitting" ? part.name : part.kind;
  const box = (label: string, key: string, value: number) => (
    <LengthBox
      key={key}
      label={`${name[0]!.toUpperCase()}${name.slice(1)}, ${label}`}
      value={value}
      onVisit={visit}
      onCommit={(mm) => put({ ...part, [key]: mm } as HandlePart)}
    />
  );
  return (
    <>
      <Choice
        label={`${name[0]!.toUpperCase()}${name.slice(1)} of`}
        value={part.material}
        options={materials}
        onChange={(material) => {
          open.end();
          put({ ...part, material });
        }}
      />
      {part.kind === "scales"
        ? [
            box("each thick", "thickness", part.thickness),
            box("front", "front", part.front),
            box("inset", "inset", part.inset),
            box("round-over, 0 by hand", "roundOver", part.roundOver ?? 0),
          ]
        : [
            box("from", "from", part.from),
            box("to", "to", part.to),
            box("tall", "height", part.height),
            box("thick", "thickness", part.thickness),
          ]}
    </>
  );
}
