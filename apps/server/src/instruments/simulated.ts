import { type ChildProcess, spawn } from "node:child_process";
import { instrumentProgram } from "../places.ts";

const PROGRAMS = ["caliper", "height-gauge", "angle-finder", "hardness-tester"] as const;

/** The simulated instruments as programs of their own: put on the bench when asked for, and gone with the server. */
export class SimulatedBench {
  private running: ChildProcess[] = [];

  /** Starts each that is not running. `server` is where they ask what is under them, `port` where they speak. */
  start(server: string, port: number): void {
    this.running = this.running.filter(
      ({ exitCode, signalCode }) => exitCode === null && signalCode === null,
    );
    if (this.running.length > 0) return;
    this.running = PROGRAMS.map((name) =>
      spawn(process.execPath, [...instrumentProgram(name), "--port", String(port), "--server", server], {
        stdio: ["ignore", "ignore", "inherit", "ipc"],
      }),
    );
    for (const child of this.running) child.on("error", () => {});
  }

  get isRunning(): boolean {
    return this.running.some(({ exitCode, signalCode }) => exitCode === null && signalCode === null);
  }

  stop(): void {
    for (const child of this.running) child.kill("SIGTERM");
    this.running = [];
  }
}
