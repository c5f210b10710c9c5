/**
 * The text of a file as spreadsheets write them: UTF-16 with its byte-order mark, UTF-8, or else the 8-bit set of
 * Western Europe.
 */
export function decoded(bytes: ArrayBuffer): string {
  const head = new Uint8Array(bytes.slice(0, 2));
  if (head[0] === 0xff && head[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (head[0] === 0xfe && head[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
