/**
 * The words of a file by its bytes: by its byte order mark; without one UTF-16 where every other byte is nought, UTF-8 where it is that,
 * and else the page of a Western office machine. Never throws.
 */
export function wordsOf(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}

function encodingOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return "utf-16le";
  if (a === 0xfe && b === 0xff) return "utf-16be";
  const some = bytes.subarray(0, 2000);
  // Noughts among both are no words at all.
  const [even, odd] = [0, 1].map((from) => some.filter((byte, i) => i % 2 === from && byte === 0).length);
  const many = some.length * 0.3;
  if (odd! > many && even! < many / 10) return "utf-16le";
  if (even! > many && odd! < many / 10) return "utf-16be";
  try {
    new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    return "utf-8";
  } catch {
    return "windows-1252";
  }
}
