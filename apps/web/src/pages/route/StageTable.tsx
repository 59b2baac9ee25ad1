import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { StageReport, StageWork } from "@true-spine/core/route/report.ts";
import type { Route, Stage } from "@true-spine/core/route/schema.ts";
import { nameOf, outOfOrder, STAGES } from "@true-spine/core/route/stages.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { GripVertical, X } from "lucide-react";
import { useSettings } from "../../app/settings.ts";
import { From } from "../../parts/From.tsx";
import { Sign } from "../../parts/Sign.tsx";

/** The stages in the maker's own order: what each leaves at heel, middle and tip, ticked when done, dragged to another place. */
export function StageTable({
  route,
  stages,
  chosen,
  onChoose,
  onChange,
  onDone,
}: {
  route: Route;
  stages: readonly StageReport[] | null;
  chosen: number;
  onChoose: (index: number) => void;
  /** Changes the stages as they stand then. */
  onChange: (of: (stages: readonly Stage[]) => Stage[]) => void;
  /** A stage is ticked as done, or said not to be. */
  onDone: (stage: Stage, isDone: boolean) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const kinds = route.stages.map((stage) => stage.kind);
  const ids = route.stages.map((stage) => stage.id);
  // As it was done so far, then as it is planned: what is ticked too early shows against what is then too late.
  const done = route.stages
    .filter((stage) => stage.done !== undefined)
    .toSorted((a, b) => Date.parse(a.done!) - Date.parse(b.done!))
    .map((stage) => stage.kind);
  const wrong = outOfOrder([...done, ...kinds.filter((kind) => !done.includes(kind))]);
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over.id))];
    onChange((all) => arrayMove([...all], from, to));
    onChoose(to);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <table aria-label="Stages" className="w-full border-collapse text-sm max-lg:portrait:text-[13px]">
        <thead className="sticky top-0 z-10 bg-room text-left text-[11px] text-faint">
          <tr>
            <th className="w-8 py-1" scope="col">
              <span className="sr-only">move</span>
            </th>
            <th className="w-8" scope="col">
              done
            </th>
            <th scope="col">stage</th>
            <th className="pr-2 text-right" scope="col">
              flats, {unit}
            </th>
            <th className="pr-2 text-right" scope="col">
              edge to stop at
            </th>
            <th className="pr-2 text-right" scope="col">
              grind line
            </th>
            <th className="pr-2 text-right" scope="col">
              angle a side
            </th>
            <th className="pr-1 text-right" scope="col">
              minutes
            </th>
            <th className="w-8" scope="col">
              <span className="sr-only">remove</span>
            </th>
          </tr>
        </thead>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <tbody>
            {route.stages.map((stage, i) => (
              <Row
                key={stage.id}
                stage={stage}
                name={nameOf(stage, route.stages)}
                report={stages?.[i]?.id === stage.id ? stages[i]! : null}
                isChosen={i === chosen}
                why={wrong.filter(({ kind }) => kind === stage.kind).map(({ why }) => why)}
                onChoose={() => onChoose(i)}
                onDone={(isDone) => onDone(stage, isDone)}
                onTakeOut={() => onChange((all) => all.filter((one) => one.id !== stage.id))}
              />
            ))}
          </tbody>
        </SortableContext>
      </table>
    </DndContext>
  );
}

function Row({
  stage,
  name,
  report,
  isChosen,
  why,
  onChoose,
  onDone,
  onTakeOut,
}: {
  stage: Stage;
  /** Its name among the stages of its route. */
  name: string;
  report: StageReport | null;
  isChosen: boolean;
  why: readonly string[];
  onChoose: () => void;
  onDone: (done: boolean) => void;
  onTakeOut: () => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const { words } = STAGES[stage.kind];
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: stage.id });
  const say = (mm: number) => showLength(mm, unit);
  const cell = (values: readonly (number | null)[] | undefined) =>
    values?.some((value) => value !== null) ? <Three values={values} say={say} /> : "";
  const work = report?.work;
  return (
    <>
      <tr
        ref={setNodeRef}
        style={{ transform: CSS.Translate.toString(transform), transition }}
        className={`border-t border-rule ${isChosen ? "bg-band" : "bg-sheet"}`}
      >
        <td>
          <button
            type="button"
            aria-label={`Move ${name} in the order`}
            className="cursor-grab touch-none rounded p-1.5 text-faint hover:bg-room"
            {...attributes}
            {...listeners}
          >
            <GripVertical className="size-4" aria-hidden />
          </button>
        </td>
        <td>
          <input
            type="checkbox"
            className="size-5 align-middle"
            aria-label={`${name} is done`}
            checked={stage.done !== undefined}
            onChange={(event) => onDone(event.currentTarget.checked)}
          />
        </td>
        <th scope="row" className="py-1.5 pr-2 text-left">
          <button
            type="button"
            aria-pressed={isChosen}
            title={words}
            onClick={onChoose}
            className="rounded px-1 py-0.5 text-left font-semibold hover:underline"
          >
            {name}
          </button>
        </th>
        <td className="pr-2 text-right">{cell(report?.targets.map(({ flats }) => flats))}</td>
        <td className="pr-2 text-right font-semibold">{cell(work?.stop)}</td>
        <td className="pr-2 text-right">{cell(work?.line[sideOf(work)])}</td>
        <td className="pr-2 text-right">{work ? <Angle work={work} /> : ""}</td>
        <td className="pr-1 text-right">{report && report.minutes > 0 ? report.minutes : ""}</td>
        <td>
          <button
            type="button"
            aria-label={`Remove ${name} from the route`}
            className="rounded p-1.5 text-faint hover:bg-room"
            onClick={onTakeOut}
          >
            <X className="size-4" aria-hidden />
          </button>
        </td>
      </tr>
      {work?.second && (
        <tr className={isChosen ? "bg-band" : "bg-sheet"}>
          <td colSpan={3} className="pl-11 text-left text-xs text-faint">
            its second edge
          </td>
          <td />
          <td className="pr-2 text-right text-xs font-semibold">{cell(work.second.stop)}</td>
          <td className="pr-2 text-right text-xs">{cell(work.second.line[sideOf(work.second)])}</td>
          <td className="pr-2 text-right text-xs">
            <Three values={work.second.angle[sideOf(work.second)]} say={(angle) => `${angle.toFixed(1)}°`} />
          </td>
          <td colSpan={2} />
        </tr>
      )}
      {why.map((words) => (
        <tr key={words} className="bg-sheet">
          <td />
          <td colSpan={8} className="pb-1.5 text-xs">
            <span className="flex items-start gap-1.5">
              <Sign of="watch" className="mt-0.5 size-3" />
              {words}
            </span>
          </td>
        </tr>
      ))}
    </>
  );
}

/** The side whose figures are shown: the right, or the left where only that is ground. */
const sideOf = (work: Pick<StageWork, "angle">) =>
  work.angle.right.every((one) => one === null) ? "left" : "right";

/** One number where it holds all along, else heel, middle and tip. */
function Three({ values, say }: { values: readonly (number | null)[]; say: (mm: number) => string }) {
  const words = values.map((value) => (value === null ? "–" : say(value)));
  if (new Set(words).size === 1) return <>{words[0]}</>;
  return <From words="At heel, middle and tip.">{words.join(" · ")}</From>;
}

function Angle({ work }: { work: StageWork }) {
  const side = sideOf(work);
  const single = work.single[side];
  if (single !== null) return <>{single.toFixed(1)}°</>;
  const known = work.angle[side];
  if (known.every((one) => one === null)) return null;
  return (
    <From words="No single angle exists: at heel, middle and tip.">
      {known.map((one) => (one === null ? "–" : `${one.toFixed(1)}°`)).join(" · ")}
    </From>
  );
}
