/** What a schema is known by: FNV-1a (32 bit) of its text. Enough for the few there are; the build refuses two of one key. */
export function schemaKey(schema: object): string {
  let hash = 0x811c9dc5;
  for (const unit of JSON.stringify(schema)) hash = Math.imul(hash ^ unit.codePointAt(0)!, 0x01000193);
  return (hash >>> 0).toString(16);
}
