import type { BenchReport, LooksLike } from "@true-spine/core/findings/bench-report.ts";
import type { Spot } from "@true-spine/core/inspect/schema.ts";
import { useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { rowNames } from "../../parts/rowNames.ts";

/** What the readings look like together, with the evidence, what else it may be, and what would tell them apart. */
export function LooksLikeGroup({ report, onGo }: { report: BenchReport; onGo: (spot: Spot) => void }) {
  const { found, rivals, settles } = report;
  if (found.length === 0) return null;
  const rows = rowNames(found.map(({ pattern, edge = "first", side }) => `${pattern} ${edge} ${side ?? ""}`));
  return (
    <Group title="What it looks like">
      {found.map((one, i) => (
        <One key={rows[i]} one={one} lead={i === 0 ? "" : "and also: "} />
      ))}
      {rivals.length > 0 && (
        <p className="text-xs text-faint">
          Or: {rivals.map((one) => `${one.words} (${percent(one.weight)})`).join("; ")}.
        </p>
      )}
      {settles && (
        <p className="text-xs">
          One more reading settles it: {settles.words}{" "}
          <SmallButton onClick={() => onGo(settles.spot)}>Read it there</SmallButton>
        </p>
      )}
    </Group>
  );
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

function One({ one, lead }: { one: LooksLike; lead: string }) {
  const { rail } = useScreen();
  return (
    <div className="text-sm">
      <button
        type="button"
        className="text-left font-semibold hover:underline"
        onClick={() => one.x && rail.setState({ scribe: one.x[0] })}
      >
        {lead}
        <span className={lead ? "" : "inline-block first-letter:uppercase"}>{one.words}</span>
      </button>
      <p className="text-xs text-faint">
        Explains {percent(one.share)} of what is off; {percent(one.weight)} among what was tried. Usual cause:{" "}
        {one.cause}.
      </p>
      <p className="text-xs">{one.cure}</p>
      <details className="text-xs text-faint">
        <summary>Evidence</summary>
        <ul className="list-disc pl-4">
          {one.evidence.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </details>
    </div>
  );
}
