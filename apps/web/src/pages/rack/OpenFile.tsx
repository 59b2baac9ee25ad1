import type { Fault } from "@true-spine/core/document/fault.ts";
import { LONGEST_FILE } from "@true-spine/core/document/read-json.ts";
import type { Read, ReadDrawing } from "@true-spine/formats/contours.ts";
import { wordsOf } from "@true-spine/formats/words.ts";
import { Suspense, useState } from "react";
import { useNavigate } from "react-router";
import { createBlade } from "../../api/blades.ts";
import { type BundleWay, takeInBundle } from "../../api/bundles.ts";
import { Refused, whyOf } from "../../api/client.ts";
import { FileBox } from "../../parts/FileBox.tsx";
import { later } from "../../parts/later.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { newId } from "../../saving/id.ts";
import { askOnce, WorkFailed } from "../../workers/asking.ts";

const NotOpened = later(async () => (await import("./NotOpened.tsx")).NotOpened);
const StandsAlready = later(async () => (await import("./StandsAlready.tsx")).StandsAlready);
const LayOut = later(async () => (await import("./LayOut.tsx")).LayOut);

/** Largest drawing that is read at all, bytes, and how long reading one may take. */
const LARGEST_DRAWING = 20_000_000;
const LARGEST_ZIP = 32 * 1024 * 1024;
const READ_WITHIN_MS = 15_000;

/** Opens a blade file or a bundle, or a drawing to lay out as a blade, and says what is wrong with one that is neither. */
export function OpenFile({ onDone }: { onDone: () => void }) {
  const navigate = useNavigate();
  const [refused, setRefused] = useState<{ name: string; faults: readonly Fault[] } | null>(null);
  const [drawing, setDrawing] = useState<{ name: string; read: ReadDrawing } | null>(null);
  const [standing, setStanding] = useState<{ file: File; why: string } | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const refuse = (name: string, message: string) => setRefused({ name, faults: [{ path: "$", message }] });
  const takeIn = async (file: File, way: BundleWay) => {
    if (file.size > LARGEST_ZIP) return refuse(file.name, "the file is too large for a bundle");
    setIsBusy(true);
    try {
      const { id, name, added, notes } = await takeInBundle(file, way);
      const { addedInWords } = await import("@true-spine/core/registry/bundle.ts");
      const words = addedInWords(added);
      const what = words === "" ? "nothing in it is new" : `taken in: ${words}`;
      useNotices.getState().tell([`“${name}”: ${what}.`, ...notes].join(" "));
      setStanding(null);
      onDone();
      if (words !== "" || way === "onto") navigate(`/blades/${id}/grind`);
    } catch (error) {
      if (way === "ask" && error instanceof Refused && error.status === 409 && "standing" in error.details)
        return setStanding({ file, why: error.message });
      setStanding(null);
      const faults = error instanceof Refused ? (error.details.faults ?? []) : [];
      setRefused({ name: file.name, faults: [{ path: "$", message: whyOf(error) }, ...faults] });
    } finally {
      setIsBusy(false);
    }
  };
  const open = async (file: File) => {
    if (/\.zip$/i.test(file.name)) return takeIn(file, "ask");
    const kind = /\.(svg|dxf)$/i.exec(file.name)?.[1]?.toLowerCase() as "svg" | "dxf" | undefined;
    if (kind) {
      if (file.size > LARGEST_DRAWING)
        return refuse(file.name, "the file is too large for a drawing of a blade");
      const read = await readDrawing(kind, wordsOf(new Uint8Array(await file.arrayBuffer())));
      if (read.ok) setDrawing({ name: file.name, read: read.drawing });
      else refuse(file.name, read.why);
      return;
    }
    if (file.size > LONGEST_FILE * 4) return refuse(file.name, "the file is too large for a blade");
    const { parseBladeText } = await import("@true-spine/core/blade/parse.ts");
    const parsed = parseBladeText(await file.text());
    if (!parsed.ok) {
      setRefused({ name: file.name, faults: parsed.faults });
      return;
    }
    const id = newId();
    try {
      await createBlade(id, parsed.blade);
      onDone();
      navigate(`/blades/${id}/grind`);
    } catch (error) {
      refuse(file.name, error instanceof Error ? error.message : "it could not be saved");
    }
  };
  return (
    <>
      <FileBox
        label="Blade file, bundle or drawing"
        words={isBusy ? "Taking it in …" : "Open a file"}
        disabled={isBusy}
        accept=".json,.svg,.dxf,.zip,application/json,image/svg+xml,application/zip"
        onPick={(file) => void open(file)}
      />
      <Suspense fallback={<p role="status">Loading …</p>}>
        {drawing && <LayOut drawing={drawing.read} name={drawing.name} onClose={() => setDrawing(null)} />}
        {standing && (
          <StandsAlready
            name={standing.file.name}
            why={standing.why}
            isBusy={isBusy}
            onOnto={() => void takeIn(standing.file, "onto")}
            onBeside={() => void takeIn(standing.file, "beside")}
            onClose={() => setStanding(null)}
          />
        )}
        {refused && <NotOpened {...refused} onClose={() => setRefused(null)} />}
      </Suspense>
    </>
  );
}

/** Reads a drawing in a worker that is ended if it takes too long: a file may be made to be slow. */
async function readDrawing(kind: "svg" | "dxf", text: string): Promise<Read> {
  try {
    return await askOnce("files", async (files) => await files.read(kind, text), {
      withinMs: READ_WITHIN_MS,
    });
  } catch (error) {
    const isLate = error instanceof WorkFailed && error.why === "hangs";
    return {
      ok: false,
      why: isLate ? "Reading it took too long, so it was stopped." : "It could not be read.",
    };
  }
}
