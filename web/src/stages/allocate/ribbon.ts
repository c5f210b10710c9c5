import { number } from '../../lib/address';
import type { Growth, ProposalLine, RibbonView, Seat } from '../../lib/types';
import { m } from '../../messages';

/** A named run on the ribbon. */
export interface Block {
  first: number;
  last: number;
  kind: 'kept' | 'dhcp' | 'growth' | 'proven' | 'planned' | 'fit' | 'other' | 'cooling' | 'unknownDevice';
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

/** Whether a network can be drawn address by address in rows. */
export function isV4(prefix: string): boolean {
  return !prefix.includes(':');
}

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
  return numbers.length === 1
    ? numbers[0]!
    : `${numbers[0]} … ${Number(numbers[numbers.length - 1]) || numbers[numbers.length - 1]}`;
}

/** `fic-1` for ard-fic-1: the site’s word is the same all over the ribbon. */
function withoutSite(name: string): string {
  return name.replace(/^[a-z0-9]+-(?=.*[a-z])/, '');
}

/**
 * What tells a unit that is one address wide: `iog` for ard-iog-1, and the number where there are hundreds of its kind.
 */
export function tiny(name: string): string {
  return (
    /\d{3}/.exec(name)?.[0] ??
    withoutSite(name)
      .replace(/-?\d+$/, '')
      .slice(0, 4)
  );
}

/** What names of one series have in common: `ard-srv-…-oob`. */
function series(name: string): string {
  return name.replace(/\d+(\D*)$/, '…$1');
}

/**
 * Joins neighbours of the same state into runs: the addresses of one unit, or units of one series that have one each.
 */
function join(
  singles: { at: number; kind: Block['kind']; name: string; unitId: number; unit: string; alone: boolean }[],
): Block[] {
  const blocks: { block: Block; names: string[]; alone: boolean }[] = [];
  for (const single of singles) {
    const open = blocks[blocks.length - 1];
    const together =
      open &&
      (open.block.unitId === single.unitId ||
        (open.alone && single.alone && series(open.names[0]!) === series(single.name)));
    if (open && together && open.block.last + 1 === single.at && open.block.kind === single.kind) {
      open.block.last = single.at;
      if (single.alone) open.names.push(single.name);
    } else {
      blocks.push({
        block: { first: single.at, last: single.at, kind: single.kind, name: '', short: '', unitId: single.unitId },
        names: [single.alone ? single.name : single.unit],
        alone: single.alone,
      });
    }
  }
  return blocks.map(({ block, names, alone }) => ({
    ...block,
    name: runName(names),
    short:
      alone && names.length > 1
        ? shortName(names)
        : block.last === block.first
          ? tiny(names[0]!)
          : withoutSite(names[0]!),
  }));
}

/** Everything that is drawn, lowest layer first. Pools are what is left blank. */
export function blocks(ribbon: RibbonView, fit: ProposalLine[], grow: Growth[] = []): Block[] {
  const [address, length] = ribbon.prefix.split('/') as [string, string];
  const network = number(address);
  const broadcast = network + 2 ** (32 - Number(length)) - 1;
  const fixed: Block[] = ribbon.strips
    .filter((strip) => strip.purpose !== 'pool')
    .map((strip) => ({
      first: number(strip.first),
      last: number(strip.last),
      kind: strip.purpose as 'kept' | 'dhcp' | 'growth',
      name:
        strip.purpose === 'growth'
          ? m.allocate.growth
          : strip.note || m.prepare.purpose[strip.purpose as 'kept' | 'dhcp'],
      short: strip.purpose === 'growth' ? '+' : '',
      unitId: null,
    }));
  fixed.push({
    first: network,
    last: network,
    kind: 'kept',
    name: m.allocate.net,
    short: m.allocate.net,
    unitId: null,
  });
  fixed.push({
    first: broadcast,
    last: broadcast,
    kind: 'kept',
    name: m.allocate.bc,
    short: m.allocate.bc,
    unitId: null,
  });
  if (ribbon.gateway)
    fixed.push({
      first: number(ribbon.gateway),
      last: number(ribbon.gateway),
      kind: 'kept',
      name: m.allocate.gw,
      short: m.allocate.gw,
      unitId: null,
    });
  const counts = new Map<number, number>();
  for (const seat of ribbon.seats) counts.set(seat.unitId, (counts.get(seat.unitId) ?? 0) + 1);
  const seats = join(
    ribbon.seats.map((seat) => ({
      at: number(seat.address),
      kind: seatKind(seat),
      name: seat.hostName,
      unitId: seat.unitId,
      unit: seat.unit,
      alone: counts.get(seat.unitId) === 1,
    })),
  );
  const here = fit.filter((line) => line.networkId === ribbon.networkId && isV4(line.address));
  const wanted = new Map<number, number>();
  for (const line of here) wanted.set(line.unitId, (wanted.get(line.unitId) ?? 0) + 1);
  const proposed = join(
    here.map((line) => ({
      at: number(line.address),
      kind: 'fit',
      name: line.hostName,
      unitId: line.unitId,
      unit: line.unit,
      alone: wanted.get(line.unitId) === 1,
    })),
  );
  const cooling = ribbon.cooling.map((each): Block => ({
    first: number(each),
    last: number(each),
    kind: 'cooling',
    name: m.allocate.legend.cooling,
    short: '…',
    unitId: null,
  }));
  const unknownDevices = ribbon.unknownDevices.map((each): Block => ({
    first: number(each.address),
    last: number(each.address),
    kind: 'unknownDevice',
    name: each.sentence,
    short: '!',
    unitId: null,
  }));
  const growth = grow
    .filter((each) => each.networkId === ribbon.networkId && isV4(each.run))
    .map((each): Block => {
      const [first, last] = each.run.split('-') as [string, string | undefined];
      return {
        first: number(first),
        last: number(last ?? first),
        kind: 'growth',
        name: m.allocate.growth,
        short: '+',
        unitId: each.unitId,
      };
    });
  return [...fixed, ...seats, ...cooling, ...proposed, ...growth, ...unknownDevices];
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
