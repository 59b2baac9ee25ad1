import { register } from "tsx/esm/api";

// A thread starts without the loader of the process: it registers its own before anything in TypeScript is asked for.
register();
const { perform } = await import("./tasks.ts");

export default perform;
