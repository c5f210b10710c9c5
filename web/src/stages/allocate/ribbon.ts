import { number } from '../../lib/address';
import type { ProposalLine, RibbonView, Seat } from '../../lib/types';
import { m } from '../../messages';

/** A named run on the ribbon. */
export interface Block {
  first: number;
  last: number;
  kind: 'kept' | 'dhcp' | 'proven' | 'planned' | 'fit' | 'other';
  name: string;
  /** What fits where a run is only one to three addresses wide. */
  short: string;
  unitId: number | null;
}

/** The part of a block that lies in one row of 32 addresses. */
export interface Piece {
  block: Block;
  from: number;
  at: number;
  width: number;
}

const ROW = 32;
/** More rows than these are not drawn: a /20 has 128. */
const MOST_ROWS = 128;

/** The first address of every row that a prefix has. */
export function rows(prefix: string): number[] {
  const [address, length] = prefix.split('/') as [string, string];
  const size = 2 ** (32 - Number(length));
  const first = Math.floor(number(address) / ROW) * ROW;
  return Array.from({ length: Math.min(MOST_ROWS, Math.ceil(size / ROW)) }, (_, i) => first + i * ROW);
}

function seatKind(seat: Seat): Block['kind'] {
  return seat.proven ? 'proven' : seat.ours ? 'planned' : 'other';
}

/** `ard-srv-001 … 012`: the first name of a run and what differs in the last. */
export function runName(names: string[]): string {
  const first = names[0] ?? '';
  const last = names[names.length - 1] ?? '';
  if (names.length === 1 || first === last) return first;
  const digits = /^(.*?)(\d+)(\D*)$/;
  const a = digits.exec(first);
  const b = digits.exec(last);
  return a && b && a[1] === b[1] && a[3] === b[3] ? `${a[1]}${a[2]} … ${b[2]}` : `${first} … ${last}`;
}

/** The numbers in the names alone: `006 … 7`. */
export function shortName(names: string[]): string {
  const numbers = names.map((name) => /\d+/.exec(name)?.[0] ?? name.slice(0, 3));
  return numbers.length === 1 ? numbers[0]! : `${numbers[0]} … ${Number(numbers[numbers.length - 1]) || numbers[numbers.length - 1]}`;
}

/** Joins neighbours of the same kind into runs. */
function join(singles: { at: number; kind: Block['kind']; name: string; unitId: number }[]): Block[] {
  const blocks: { block: Block; names: string[] }[] = [];
  for (const single of singles) {
    const open = blocks[blocks.length - 1];
    if (open && open.block.last + 1 === single.at && open.block.kind === single.kind) {
      open.block.last = single.at;
      open.names.push(single.name);
    } else {
      blocks.push({ block: { first: single.at, last: single.at, kind: single.kind, name: '', short: '', unitId: single.unitId }, names: [single.name] });
    }
  }
  return blocks.map(({ block, names }) => ({ ...block, name: runName(names), short: shortName(names) }));
}

/** Everything that is drawn, lowest layer first. Pools are what is left blank. */
export function blocks(ribbon: RibbonView, fit: ProposalLine[]): Block[] {
  const [address, length] = ribbon.prefix.split('/') as [string, string];
  const network = number(address);
  const broadcast = network + 2 ** (32 - Number(length)) - 1;
  const fixed: Block[] = ribbon.strips
    .filter((strip) => strip.purpose !== 'pool')
    .map((strip) => ({ first: number(strip.first), last: number(strip.last), kind: strip.purpose as 'kept' | 'dhcp', name: strip.note || m.prepare.purpose[strip.purpose], short: '', unitId: null }));
  fixed.push({ first: network, last: network, kind: 'kept', name: m.allocate.net, short: m.allocate.net, unitId: null });
  fixed.push({ first: broadcast, last: broadcast, kind: 'kept', name: m.allocate.bc, short: m.allocate.bc, unitId: null });
  if (ribbon.gateway) fixed.push({ first: number(ribbon.gateway), last: number(ribbon.gateway), kind: 'kept', name: m.allocate.gw, short: m.allocate.gw, unitId: null });
  const seats = join(ribbon.seats.map((seat) => ({ at: number(seat.address), kind: seatKind(seat), name: seat.hostName, unitId: seat.unitId })));
  const proposed = join(fit.map((line) => ({ at: number(line.address), kind: 'fit', name: line.hostName, unitId: line.unitId })));
  return [...fixed, ...seats, ...proposed];
}

/** What of the blocks lies in the row that starts here. */
export function pieces(all: Block[], first: number): Piece[] {
  const found: Piece[] = [];
  for (const block of all) {
    const from = Math.max(block.first, first);
    const to = Math.min(block.last, first + ROW - 1);
    if (from <= to) found.push({ block, from, at: from - first, width: to - from + 1 });
  }
  return found;
}
