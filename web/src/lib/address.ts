/** Arithmetic on IPv4 addresses for drawing; the server decides what they mean. */
export function number(address: string): number {
  return address.split('.').reduce((value, part) => value * 256 + Number(part), 0);
}

export function text(value: number): string {
  return [24, 16, 8, 0].map((shift) => Math.floor(value / 2 ** shift) % 256).join('.');
}

/** `.101` for 10.40.8.101, `:65` for fd40:a4da:1:8::65: what differs inside a /24 or a /64. */
export function tail(address: string): string {
  return address.slice(address.lastIndexOf(address.includes(':') ? ':' : '.'));
}

/** Addresses as short as a person would write them: `.101 – .112`, or a few and a count. */
export function span(addresses: string[]): string {
  if (addresses.length === 0) return '';
  const numbers = addresses.map(number);
  const first = addresses[0]!;
  const last = addresses[addresses.length - 1]!;
  const consecutive = numbers.every((value, i) => i === 0 || value === numbers[i - 1]! + 1);
  if (addresses.length === 1) return tail(first);
  return consecutive ? `${tail(first)} – ${tail(last)}` : `${tail(first)}, … ${tail(last)}`;
}
