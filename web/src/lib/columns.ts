/** What a person has said of columns, as a request has it: `&columns=0:unit,3:mac`; empty where nothing was said. */
export function columnsOf(chosen: Record<number, string>): string {
  const said = Object.entries(chosen)
    .filter(([, meaning]) => meaning !== '')
    .map(([index, meaning]) => `${index}:${meaning}`);
  return said.length > 0 ? `&columns=${said.join(',')}` : '';
}
