import { run } from "../instrument.ts";

run("hardness-tester");
