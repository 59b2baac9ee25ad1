/** A reason to stop that is the reader's to act on: printed as it is, without a stack. */
export class Plain extends Error {}

export function say(words) {
  console.log(words);
}
