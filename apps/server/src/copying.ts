import { execFile } from "node:child_process";
import { promisify } from "node:util";
import type { CopyState } from "@true-spine/core/registry/contract.ts";
import type { Logger } from "pino";
import type { Database } from "./database.ts";
import { COPY_SCRIPT, PROJECT_FOLDER } from "./places.ts";
import { beginCopy, endCopy } from "./records/copies.ts";
import { noteTrouble } from "./records/troubles.ts";

const LOOK_EVERY_MS = 10 * 60_000;
/** The first look after the start waits, so that it does not slow the start down. */
const FIRST_LOOK_MS = 60_000;
/** Of the night, local time: when nobody grinds. */
const NIGHT_HOUR = 2;
const AGAIN_AFTER_MS = 3600_000;
const run = promisify(execFile);

/** Makes copies of everything as a process of its own: when asked, and once a night. */
export class Copying {
  private timer: ReturnType<typeof setInterval> | undefined;
  private first: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly db: Database,
    private readonly databaseUrl: string,
    private readonly log: Logger,
  ) {}

  /** Begins one. Answers false where one is being made already. */
  async begin(isWanted?: (state: CopyState) => boolean): Promise<boolean> {
    const begun = await beginCopy(this.db, isWanted);
    if (begun)
      void this.make(begun).catch((error: unknown) => this.log.error({ err: error }, "copy not noted"));
    return begun !== null;
  }

  startNightly(): void {
    const look = () =>
      void this.begin((state) => isDue(state, new Date())).catch((error: unknown) =>
        this.log.warn({ err: error }, "nightly copy not begun"),
      );
    this.timer = setInterval(look, LOOK_EVERY_MS);
    this.first = setTimeout(look, FIRST_LOOK_MS);
    this.timer.unref();
    this.first.unref();
  }

  stop(): void {
    clearInterval(this.timer);
    clearTimeout(this.first);
  }

  private async make({ id, folder }: { id: number; folder: string }): Promise<void> {
    let came: { file: string; bytes: number } | { why: string };
    try {
      const env = { ...process.env, DATABASE_URL: this.databaseUrl };
      const { stdout } = await run(process.execPath, [COPY_SCRIPT, "--json", folder], {
        cwd: PROJECT_FOLDER,
        env,
      });
      const said = JSON.parse(stdout.trim().split("\n").at(-1)!) as {
        ok: boolean;
        file: string;
        bytes: number;
        why: string;
      };
      came = said.ok ? { file: said.file, bytes: said.bytes } : { why: said.why };
    } catch (error) {
      came = { why: error instanceof Error ? error.message.slice(0, 500) : "The copy could not be made." };
    }
    if ("why" in came) {
      this.log.error({ why: came.why, folder }, "copy failed");
      await noteTrouble(this.db, `A copy was not made: ${came.why}`, folder);
    }
    await endCopy(this.db, id, came);
  }
}

/** Whether tonight's copy has still to be made: after two, none good since, and none tried within the hour. */
export function isDue({ rows }: Pick<CopyState, "rows">, now: Date): boolean {
  const night = new Date(now);
  night.setHours(NIGHT_HOUR, 0, 0, 0);
  if (night > now) night.setDate(night.getDate() - 1);
  const isDone = rows.some(({ isGood, startedAt }) => isGood && Date.parse(startedAt) >= night.getTime());
  const last = rows[0] ? Date.parse(rows[0].startedAt) : 0;
  return !isDone && now.getTime() - last > AGAIN_AFTER_MS;
}
