import { readFileSync } from "node:fs";
import { figuresOf } from "./drawing-figures.ts";
import { wordsOf } from "./words.ts";

/** `npm run -s drawing -- FILE`: a drawing's figures as one JSON document, or status 2 with the reason in words. */
const [file] = process.argv.slice(2);

function answer(): number {
  if (!file) {
    console.error("npm run -s drawing -- FILE.svg or FILE.dxf");
    return 2;
  }
  let text: string;
  try {
    text = wordsOf(readFileSync(file));
  } catch (error) {
    console.error(`${file} cannot be read: ${error instanceof Error ? error.message : error}`);
    return 2;
  }
  // The parser's own remarks belong to nobody who reads figures.
  console.log = console.info = console.warn = () => {};
  const read = figuresOf(file, text);
  if (!read.ok) {
    console.error(read.why);
    return 2;
  }
  process.stdout.write(`${JSON.stringify(read.figures, null, 2)}\n`);
  return 0;
}

process.exitCode = answer();
