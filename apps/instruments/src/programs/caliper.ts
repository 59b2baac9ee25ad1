import { run } from "../instrument.ts";

run("caliper");
