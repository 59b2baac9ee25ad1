import { readdirSync } from "node:fs";
import { basename } from "node:path";
import { defineConfig } from "vite";
import { compiledValidators } from "../../scripts/validators/compiled-validators.ts";

const PROGRAMS = "../instruments/src/programs";

/** The server, its thread and the simulated instruments as they are started: no compiler in memory, neither TypeScript's nor the schemas'. */
export default defineConfig({
  plugins: [compiledValidators()],
  ssr: { noExternal: [/^@true-spine\//, "fast-deep-equal"] },
  build: {
    ssr: true,
    target: "node20",
    minify: false,
    rolldownOptions: {
      checks: { pluginTimings: false },
      input: {
        main: "src/main.ts",
        thread: "src/judging/tasks.ts",
        ...Object.fromEntries(
          readdirSync(new URL(PROGRAMS, import.meta.url)).map((file) => [
            `programs/${basename(file, ".ts")}`,
            `${PROGRAMS}/${file}`,
          ]),
        ),
      },
      output: { entryFileNames: "[name].mjs", chunkFileNames: "[name]-[hash].mjs" },
    },
  },
});
