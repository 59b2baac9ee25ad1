/** Hands a file to the browser's downloads, named after the blade. */
export function download(name: string, ending: string, content: string | Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${name.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase() || "blade"}${ending}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
