import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { compiledValidators } from "../../scripts/validators/compiled-validators.ts";

export default defineConfig({
  plugins: [react(), tailwindcss(), compiledValidators()],
  worker: {
    format: "es",
    plugins: () => [compiledValidators()],
    rolldownOptions: { checks: { pluginTimings: false } },
  },
  build: {
    target: "es2022",
    // The 3D view and the drawing reader are large, and fetched where they are asked for.
    chunkSizeWarningLimit: 2_100,
    rolldownOptions: { checks: { pluginTimings: false } },
  },
  server: { proxy: { "/api": "http://127.0.0.1:4570" } },
});
