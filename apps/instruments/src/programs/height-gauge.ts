import { run } from "../instrument.ts";

run("height-gauge");
