import type { FormReport } from "@true-spine/core/route/forge-report.ts";
import { PAPERS, type Paper } from "@true-spine/formats/papers.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { download } from "../../parts/download.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { fontsFor } from "../../print/fonts.ts";
import { useShop } from "../../shop/shop.ts";
import { askOnce } from "../../workers/asking.ts";

/** A full-size paper template of the form that is looked at. */
export function TemplatesGroup({ step, name }: { step: FormReport["step"]; name: string }) {
  const { open } = useScreen();
  const { shop } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const [paper, setPaper] = useState<Paper>("A4");
  const [isHot, setIsHot] = useState(false);
  const [isBusy, setIsBusy] = useState(false);
  const [why, setWhy] = useState<string | null>(null);
  const take = async () => {
    setIsBusy(true);
    setWhy(null);
    const { file, route, forge } = open.store.getState();
    try {
      const fonts = await fontsFor([file.name, file.use, file.steel, forge]);
      const options = { paper, unit, fonts, date: new Date(), isHot };
      const pdf = await askOnce("files", (files) =>
        files.formTemplate(file, route, forge, shop, step, options),
      );
      download(file.name, `-${step}${isHot ? "-hot" : ""}-${paper}.pdf`, pdf, "application/pdf");
    } catch (error) {
      setWhy(`The template could not be written. ${error instanceof Error ? error.message : ""}`);
    }
    setIsBusy(false);
  };
  return (
    <Group title="Paper template">
      <p className="text-xs text-faint">
        “{name}”, full size, both sides, with a bar to check the printer by.
      </p>
      <Segmented label="Paper" options={Object.keys(PAPERS) as Paper[]} value={paper} onChange={setPaper} />
      <label className="flex items-center gap-2 text-sm text-faint">
        <input type="checkbox" checked={isHot} onChange={(event) => setIsHot(event.currentTarget.checked)} />
        as it measures hot, when it is stopped
      </label>
      <div>
        <SmallButton onClick={() => void take()} isOff={isBusy}>
          {isBusy ? "Writing …" : "Export the template"}
        </SmallButton>
      </div>
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
