/** An id that none of a list has: the word and a number. */
export function freshId(list: readonly { readonly id: string }[], word: string): string {
  let n = list.length + 1;
  while (list.some(({ id }) => id === `${word}-${n}`)) n++;
  return `${word}-${n}`;
}
