import { run } from "../instrument.ts";

run("angle-finder");
