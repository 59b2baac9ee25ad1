import type { BenchEvent } from "@true-spine/core/inspect/wire.ts";

/**
 * What one page has still to hear, in order and bounded: of who is here only the last word counts; a page that falls too far behind
 * is let go of.
 */
export class Hearing {
  private waiting: BenchEvent[] = [];
  private wake: (() => void) | null = null;
  private isOver = false;

  constructor(
    private readonly most: number,
    private readonly onStop: (hearing: Hearing) => void,
  ) {}

  tell(event: BenchEvent): void {
    if (this.isOver) return;
    if (event.event === "instruments")
      this.waiting = this.waiting.filter((one) => one.event !== "instruments");
    this.waiting.push(event);
    if (this.waiting.length > this.most) this.stop();
    this.wake?.();
  }

  /** The next event; "nothing" after a while without one; "over" once it was stopped. */
  async next(withinMs: number): Promise<BenchEvent | "nothing" | "over"> {
    if (this.waiting.length === 0 && !this.isOver) {
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, withinMs);
        this.wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
      this.wake = null;
    }
    if (this.isOver) return "over";
    return this.waiting.shift() ?? "nothing";
  }

  readonly stop = (): void => {
    if (this.isOver) return;
    this.isOver = true;
    this.waiting = [];
    this.onStop(this);
    this.wake?.();
  };
}

/** All who hear of a bench. */
export class Hearings {
  private readonly all = new Set<Hearing>();

  /** Another one, which first hears how things stand; at most so many events wait to be taken. */
  open(most: number, standing: BenchEvent): Hearing {
    const hearing = new Hearing(most, (one) => this.all.delete(one));
    this.all.add(hearing);
    hearing.tell(standing);
    return hearing;
  }

  tell(event: BenchEvent): void {
    for (const hearing of this.all) hearing.tell(event);
  }

  stop(): void {
    for (const hearing of this.all) hearing.stop();
  }
}
