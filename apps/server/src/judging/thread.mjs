import { register } from "tsx/esm/api";

// From the sources a thread starts without the loader of the process: it registers its own before anything in TypeScript is asked for.
register();
export const { perform } = await import("./tasks.ts");
