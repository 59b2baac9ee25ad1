import { browserOn, THIS_MACHINE } from "../scripts/found.mjs";

/** How the machine's Chromium is started for tests and pictures: headless, offline, software drawing. */
export const CHROMIUM = {
  executablePath: browserOn(THIS_MACHINE) ?? "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-dev-shm-usage",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-gpu-compositing",
    "--use-gl=angle",
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
  ],
};
