import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: [
    "./src/schema/blades.ts",
    "./src/schema/shop.ts",
    "./src/schema/readings.ts",
    "./src/schema/work.ts",
    "./src/schema/devices.ts",
    "./src/schema/copies.ts",
    "./src/schema/troubles.ts",
  ],
  out: "./migrations",
});
