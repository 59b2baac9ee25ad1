import { useQuery } from "@tanstack/react-query";
import { nameOf, withStage } from "@true-spine/core/route/stages.ts";
import { useStore } from "zustand";
import { readRemovedStages } from "../../api/blades.ts";
import { useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { whenInWords } from "../../parts/when.ts";

/** Stages that were taken off the route within the last 30 days, to be put back as they stood. */
export function RemovedStages() {
  const { id, open, savings } = useScreen();
  const revision = useStore(savings.route.state, (state) => state.revision);
  const { data } = useQuery({
    queryKey: ["removed stages", id, revision],
    queryFn: () => readRemovedStages(id),
    placeholderData: (before) => before,
  });
  const standing = useStore(open.store, (state) => state.route.stages);
  const removed = (data ?? []).filter(({ stage }) => !standing.some(({ id: known }) => known === stage.id));
  if (removed.length === 0) return null;
  return (
    <Group title="Removed in the last 30 days">
      <ul aria-label="Removed stages" className="flex flex-col gap-1">
        {removed.map(({ stage, at }) => (
          <li key={stage.id} className="flex items-center gap-2 text-sm">
            <span className="min-w-0 flex-1">
              {nameOf(stage, standing)}
              <span className="block text-xs text-faint">{whenInWords(Date.parse(at))}</span>
            </span>
            <SmallButton
              label={`Put ${nameOf(stage, standing)} back`}
              onClick={() => {
                const { route } = open.store.getState();
                open.end();
                open.put({ route: { ...route, stages: withStage(route.stages, stage) } });
              }}
            >
              put back
            </SmallButton>
          </li>
        ))}
      </ul>
    </Group>
  );
}
