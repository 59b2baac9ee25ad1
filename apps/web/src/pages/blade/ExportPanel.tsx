import type { Blade } from "@true-spine/core/blade/schema.ts";
import { NO_EDGE } from "@true-spine/core/edge/schema.ts";
import { edgeForOven } from "@true-spine/core/route/edge-to-leave.ts";
import { edgeWithWork, forgeWithWork, heatWithWork, straightWithWork } from "@true-spine/core/work/joined.ts";
import { PAPERS, type Paper } from "@true-spine/formats/papers.ts";
import type { DxfOptions } from "@true-spine/formats/write-dxf.ts";
import { proxy, type Remote } from "comlink";
import { useMemo, useRef, useState } from "react";
import { useStore } from "zustand";
import { fetchBundle } from "../../api/bundles.ts";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useFile, usePurpose, useRail, useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { download } from "../../parts/download.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { fontsFor } from "../../print/fonts.ts";
import { useReadings } from "../../readings/useReadings.ts";
import { isSavedSoon } from "../../saving/trouble.ts";
import { useShop } from "../../shop/shop.ts";
import { useCheck, useRoute, useWorkRows } from "../../work/useWorkRows.ts";
import { askOnce } from "../../workers/asking.ts";
import type { Workers } from "../../workers/workers.ts";

/** A solid to 0.02 mm of a long blade takes its time; progress is shown, and it can be stopped. */
const WRITTEN_WITHIN_MS = 600_000;

type Job = (
  files: Remote<Workers["files"]>,
  blade: Blade,
  onProgress: (share: number) => void,
) => Promise<Written>;
interface Written {
  readonly content: string | Uint8Array;
  readonly ending: string;
  readonly type: string;
}

/** The blade out of the program: on paper at true scale, for a cutter or a printer, as figures, as itself. */
export function ExportPanel() {
  const { rail } = useScreen();
  const isOpen = useRail((state) => state.panel === "export");
  return (
    <Question title="Export" isOpen={isOpen} onClose={() => rail.setState({ panel: null })} wide>
      {isOpen && <Choices onClose={() => rail.setState({ panel: null })} />}
    </Question>
  );
}

function Choices({ onClose }: { onClose: () => void }) {
  const { open, savings, trouble, id } = useScreen();
  const route = useRoute();
  const check = useCheck();
  const own = useDocument("handle");
  const forge = useDocument("forge");
  const heat = useDocument("heat");
  const straight = useDocument("straight");
  const edge = useDocument("edge");
  const rows = useWorkRows();
  const readings = useReadings();
  const { shop } = useShop();
  const handle = own.parts.length + own.pins.length > 0 ? own : null;
  const read = { route, shop, check, handle, readings, heat };
  const purpose = usePurpose();
  const unit = useSettings((settings) => settings.unit);
  const revision = useStore(savings.blade.state, (state) => state.revision);
  const [paper, setPaper] = useState<Paper>("A4");
  const [curves, setCurves] = useState<DxfOptions["curves"]>("polylines");
  const [busy, setBusy] = useState<{ name: string; share: number } | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const [withHistory, setWithHistory] = useState(false);
  const [typedLeave, setLeave] = useState<number | null>(null);
  const [typedGap, setGap] = useState<number | null>(null);
  const file = useFile();
  // As the route leaves the edge, until another figure is typed.
  const planned = useMemo(() => edgeForOven(file, route, shop), [file, route, shop]);
  const leave = typedLeave ?? planned;
  const gap = typedGap ?? route.gap;
  const order = { behind: purpose?.behind ?? null, leave, gap };
  const writing = useRef<AbortController | null>(null);
  const stop = () => {
    writing.current?.abort();
    writing.current = null;
    setBusy(null);
  };
  const take = (name: string, job: Job) => async () => {
    stop();
    setWhy(null);
    setBusy({ name, share: 0 });
    const mine = new AbortController();
    writing.current = mine;
    const { file } = open.store.getState();
    const onProgress = (share: number) => {
      if (writing.current === mine) setBusy({ name, share });
    };
    try {
      const { content, ending, type } = await askOnce("files", (files) => job(files, file, onProgress), {
        signal: mine.signal,
        withinMs: WRITTEN_WITHIN_MS,
      });
      if (writing.current !== mine) return;
      download(file.name, ending, content, type);
      stop();
    } catch (error) {
      if (writing.current !== mine) return;
      stop();
      const because = error instanceof Error ? error.message : "";
      setWhy(`The ${name} could not be written. ${because} The blade is sound and saved.`);
    }
  };
  const template: Job = async (files, blade) => {
    const options = { paper, unit, fonts: await fontsFor(blade), date: new Date(), revision };
    return {
      content: await files.template(blade, options),
      ending: `-template-${paper}.pdf`,
      type: "application/pdf",
    };
  };
  const dxf =
    (ending: string, options: DxfOptions): Job =>
    async (files, blade) => ({ content: await files.dxf(blade, options), ending, type: "image/vnd.dxf" });
  const solid =
    (format: "stl" | "3mf"): Job =>
    async (files, blade, onProgress) => ({
      content: await files.solid(blade, format, proxy(onProgress)),
      ending: `.${format}`,
      type: `model/${format}`,
    });
  const item = (name: string, words: string, job: Job) => (
    <Item
      key={name}
      name={name}
      words={words}
      share={busy?.name === name ? busy.share : null}
      onTake={take(name, job)}
      onStop={stop}
    />
  );
  return (
    <>
      {why && <Alert className="mb-3">{why}</Alert>}
      <ul>
        <li className="flex items-center gap-3 border-b border-rule py-2.5">
          <span className="min-w-0 flex-1">
            <span className="block font-semibold">PDF template</span>
            <span className="block text-sm text-faint">
              Both sides at true scale with grind lines, plunges and holes; a bar to check the printer by.
            </span>
          </span>
          <span className="w-36">
            <Segmented
              label="Paper"
              options={Object.keys(PAPERS) as Paper[]}
              value={paper}
              onChange={setPaper}
            />
          </span>
          <PlainButton kind="main" onClick={take("PDF template", template)}>
            {busy?.name === "PDF template" ? "Drawing …" : "Export template"}
          </PlainButton>
        </li>
        <li className="flex items-center gap-3 border-b border-rule py-2.5">
          <span className="min-w-0 flex-1">
            <span className="block font-semibold">Curves in DXF</span>
            <span className="block text-sm text-faint">
              Polylines are read by everybody, and stray by 0.005 mm at most; splines are the curves
              themselves.
            </span>
          </span>
          <span className="w-44">
            <Segmented
              label="Curves in DXF"
              options={["polylines", "splines"]}
              value={curves}
              onChange={setCurves}
            />
          </span>
        </li>
        {item(
          "DXF to cut",
          "For a cutting service, which cuts whatever it finds: the outline and the holes alone, mm.",
          dxf("-cut.dxf", { curves, isCutOnly: true }),
        )}
        {item(
          "DXF",
          "Outline, holes, grind, edge and plunge lines and the datum, each on a layer of its own, mm.",
          dxf(".dxf", { curves }),
        )}
        <li className="border-b border-rule py-2">
          <span className="block font-semibold">Gauges</span>
          <span className="block text-sm text-faint">
            Sections at four places of the edge; slots that go or stay out for the edge left for hardening,
            before sharpening and behind it; plunge guide, angle and scribe blocks.
          </span>
          <div className="mt-2 flex flex-wrap items-center justify-end gap-x-4 gap-y-2">
            <LengthBox
              label="Edge left for hardening"
              value={leave}
              onCommit={(mm) => {
                if (mm < 0.2 || mm > 5) return "Leave between 0.2 and 5 mm.";
                setLeave(mm);
                return null;
              }}
            />
            <LengthBox
              label="Gap of the centre lines"
              value={gap}
              onCommit={(mm) => {
                if (mm <= 0 || mm > 5) return "A gap is between 0 and 5 mm.";
                setGap(mm);
                return null;
              }}
            />
          </div>
        </li>
        {item(
          "gauges as DXF",
          "For a cutting service: cut lines, and marks as outlines of their letters, on layers of their own.",
          async (files, blade) => ({
            content: await files.gauges(blade, order, await fontsFor(blade.name)),
            ending: "-gauges.dxf",
            type: "image/vnd.dxf",
          }),
        )}
        {item(
          "gauges as STL",
          "For a printer: a zip of plates 3 mm thick, each named by its mark.",
          async (files, blade) => ({
            content: await files.gaugePlates(blade, order),
            ending: "-gauges.zip",
            type: "application/zip",
          }),
        )}
        {item("SVG", "The same as curves, in true millimetres.", async (files, blade) => ({
          content: await files.svg(blade),
          ending: ".svg",
          type: "image/svg+xml",
        }))}
        {item("CSV", "Stations along the edge: thickness, height, angles, area.", async (files, blade) => ({
          content: await files.stations(blade),
          ending: "-stations.csv",
          type: "text/csv",
        }))}
        {item("STL", "The finished steel as a solid, to 0.02 mm.", solid("stl"))}
        {item("3MF", "The same with its unit and its name.", solid("3mf"))}
        {item("blade file", "Everything of the steel, to open again here or anywhere.", async (_, blade) => ({
          content: `${JSON.stringify(blade, null, 2)}\n`,
          ending: ".json",
          type: "application/json",
        }))}
        <li className="border-b border-rule py-2">
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4"
              checked={withHistory}
              onChange={(event) => setWithHistory(event.currentTarget.checked)}
            />
            Bundle with its history
          </label>
        </li>
        {item(
          "bundle",
          "The blade whole for another shop: its documents, photo, readings and runs. Open it there from the rack.",
          async () => {
            if (!(await isSavedSoon(trouble)))
              throw new Error("What was typed last is not saved yet: try again in a moment.");
            return {
              content: await fetchBundle(id, withHistory),
              ending: "-bundle.zip",
              type: "application/zip",
            };
          },
        )}
      </ul>
      <h3 className="mt-5 font-bold">For the buyer</h3>
      <ul>
        {item(
          "spec sheet",
          "PDF, one page: what was wanted and what was read, what was accepted as it is, care and cautions.",
          async (files, blade) => {
            const fonts = await fontsFor([blade, read]);
            const options = { paper, unit, fonts, date: new Date() };
            return {
              content: await files.specSheet(blade, read, options),
              ending: `-spec-${paper}.pdf`,
              type: "application/pdf",
            };
          },
        )}
        {item(
          "spec as JSON",
          "The same figures, for whoever reads them by program.",
          async (files, blade) => ({
            content: `${JSON.stringify(await files.spec(blade, read), null, 2)}\n`,
            ending: "-spec.json",
            type: "application/json",
          }),
        )}
      </ul>
      {route.stages.length > 0 && (
        <>
          <h3 className="mt-5 font-bold">The route</h3>
          <ul>
            {item(
              "route sheet",
              "PDF: every stage, the layout sheet, set-up cards, room for readings.",
              async (files, blade) => {
                const fonts = await fontsFor([blade, route, shop, forge]);
                const options = { name: blade.name, paper, unit, fonts, date: new Date() };
                return {
                  content: await files.routeSheet(blade, route, shop, forge, options),
                  ending: `-route-${paper}.pdf`,
                  type: "application/pdf",
                };
              },
            )}
            {item("route as CSV", "Stage by stage at heel, middle and tip.", async (files, blade) => ({
              content: await files.routeCsv(blade, route, shop, forge),
              ending: "-route.csv",
              type: "text/csv",
            }))}
            {route.stages.some(({ kind }) => kind === "forge") &&
              item("forge file", "What was chosen, done and seen at the fire, as JSON.", async () => ({
                content: `${JSON.stringify(forgeWithWork(forge, rows), null, 2)}\n`,
                ending: "-forge.json",
                type: "application/json",
              }))}
            {route.stages.some(({ kind }) => kind === "harden") &&
              item(
                "heat file",
                "The steel, its heats as chosen, as run and as proved, as JSON.",
                async () => ({
                  content: `${JSON.stringify(heatWithWork(heat, rows), null, 2)}\n`,
                  ending: "-heat.json",
                  type: "application/json",
                }),
              )}
            {(edge !== NO_EDGE || rows.some(({ what }) => what === "sharpened")) &&
              item("edge file", "How its edge is kept, and what was done to it, as JSON.", async () => ({
                content: `${JSON.stringify(edgeWithWork(edge, rows), null, 2)}\n`,
                ending: "-edge.json",
                type: "application/json",
              }))}
            {rows.some(({ what }) => what === "set" || what === "blow") &&
              item("straight file", "What was read along it and struck, as JSON.", async () => ({
                content: `${JSON.stringify(straightWithWork(straight, rows), null, 2)}\n`,
                ending: "-straight.json",
                type: "application/json",
              }))}
            {item("route file", "What was chosen and done, as JSON.", async () => ({
              content: `${JSON.stringify(route, null, 2)}\n`,
              ending: "-route.json",
              type: "application/json",
            }))}
            {route.stages.some((stage) => stage.planned) &&
              item("calendar", "The stages that a day was set for, as whole days.", async (files, blade) => ({
                content: await files.calendar(id, blade, route, heat, shop),
                ending: "-route.ics",
                type: "text/calendar",
              }))}
          </ul>
        </>
      )}
      <div className="mt-5 flex justify-end">
        <PlainButton onClick={onClose}>Close</PlainButton>
      </div>
    </>
  );
}

function Item({
  name,
  words,
  share,
  onTake,
  onStop,
}: {
  name: string;
  words: string;
  /** How far it has come, 0…1; null while it is not being written. */
  share: number | null;
  onTake: () => void;
  onStop: () => void;
}) {
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2">
      <span className="min-w-0 flex-1">
        <span className="block font-semibold first-letter:uppercase">{name}</span>
        <span className="block text-sm text-faint">{words}</span>
      </span>
      {share === null ? (
        <PlainButton onClick={onTake}>
          Export<span className="sr-only"> {name}</span>
        </PlainButton>
      ) : (
        <>
          <progress aria-label={`Writing the ${name}`} className="w-32" value={share} max={1} />
          <PlainButton onClick={onStop}>Stop</PlainButton>
        </>
      )}
    </li>
  );
}
