import type { Blade, OutlineNode } from "@true-spine/core/blade/schema.ts";
import {
  addAfter,
  type ChainName,
  canRemove,
  corner,
  remove,
  smooth,
  straighten,
} from "@true-spine/core/design/nodes.ts";
import { useState } from "react";
import { moveNode } from "../../blade/move-node.ts";
import { useFilePart, useRail, useScreen } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";

const CHAINS = ["spine", "edge", "tang"] as const;

/** Every node by its numbers: the same that are dragged on the drawing. Shared ends move together. */
export function OutlineGroup() {
  const outline = useFilePart((file) => file.outline);
  const { edit, visit } = useEdit();
  const { rail } = useScreen();
  const chosen = useRail((state) => state.node);
  const chain = chosen?.chain ?? "edge";
  const setChain = (next: ChainName) => rail.setState({ node: { chain: next, index: 0 } });
  const nodes = outline[chain];
  return (
    <Group
      title="Outline"
      aside={
        <div className="flex gap-1">
          {CHAINS.map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={name === chain}
              onClick={() => setChain(name)}
              className={`rounded px-2 py-0.5 text-xs ${name === chain ? "bg-deep font-semibold text-on-deep" : "hover:bg-room"}`}
            >
              {name}
            </button>
          ))}
        </div>
      }
    >
      <div className="flex gap-2 text-[11px] text-faint" aria-hidden>
        <span className="w-6" />
        <span className="flex-1">from the junction</span>
        <span className="flex-1">up from the datum</span>
      </div>
      {nodes.map((node, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a node is its position in the chain
        <div key={`${chain}${i}`} className="flex items-start gap-2">
          <button
            type="button"
            aria-pressed={chosen?.index === i}
            aria-label={`Choose ${chain} node ${i + 1}`}
            onClick={() => rail.setState({ node: { chain, index: i } })}
            className={`mt-1 w-6 rounded py-0.5 text-center text-xs ${chosen?.index === i ? "bg-deep font-semibold text-on-deep" : "text-faint hover:bg-room"}`}
          >
            {i + 1}
          </button>
          {([0, 1] as const).map((axis) => (
            <LengthBox
              key={axis}
              className="min-w-0 flex-1"
              hideLabel
              label={`${chain} node ${i + 1}, ${axis === 0 ? "from the junction" : "up from the datum"}`}
              value={node.at[axis]}
              onVisit={visit}
              onCommit={(value) =>
                edit((copy) => {
                  const at: [number, number] = [...node.at];
                  at[axis] = value;
                  moveNode(copy, chain, i, at);
                })
              }
            />
          ))}
        </div>
      ))}
      <NodeTools chain={chain} index={Math.min(chosen?.index ?? 0, nodes.length - 1)} nodes={nodes} />
    </Group>
  );
}

/** What can be done to the chosen node and the stretch after it. */
function NodeTools({
  chain,
  index,
  nodes,
}: {
  chain: ChainName;
  index: number;
  nodes: readonly OutlineNode[];
}) {
  const { rail } = useScreen();
  const { press } = useEdit();
  const [why, setWhy] = useState<string | null>(null);
  const isInner = canRemove(nodes, index);
  const isLast = index === nodes.length - 1;
  const act = (change: (chain: Blade["outline"][ChainName]) => void, next = index) => {
    const refused = press((copy) => change(copy.outline[chain]));
    setWhy(refused);
    if (!refused) rail.setState({ node: { chain, index: next } });
  };
  const tools = [
    { name: "Add after", isOn: !isLast, run: () => act((all) => addAfter(all, index), index + 1) },
    { name: "Remove", isOn: isInner, run: () => act((all) => remove(all, index), index - 1) },
    { name: "Smooth", isOn: isInner, run: () => act((all) => smooth(all, index)) },
    { name: "Even", isOn: isInner, run: () => act((all) => smooth(all, index, true)) },
    { name: "Corner", isOn: isInner, run: () => act((all) => corner(all, index)) },
    { name: "Straight after", isOn: !isLast, run: () => act((all) => straighten(all, index)) },
  ];
  return (
    <div role="group" aria-label={`${chain} node ${index + 1}`}>
      <p className="mb-1 text-xs text-faint">
        {chain} node {index + 1}:
      </p>
      <div className="flex flex-wrap gap-1">
        {tools
          .filter(({ isOn }) => isOn)
          .map(({ name, run }) => (
            <SmallButton key={name} onClick={run}>
              {name}
            </SmallButton>
          ))}
      </div>
      {why && <Alert className="mt-1">{why}</Alert>}
    </div>
  );
}
