import { describe, expect, it } from 'vitest';
import { number, span, tail, text } from '../src/lib/address';
import { blocks, pieces, rows, runName, shortName, tiny } from '../src/stages/allocate/ribbon';
import type { ProposalLine, RibbonView, Seat } from '../src/lib/types';

const seat = (address: string, hostName: string, proven = false, ours = true): Seat => ({
  unitId: number(address),
  unit: hostName,
  role: 'management',
  address,
  hostName,
  fqdn: hostName,
  position: 'R1 u5',
  ours,
  proven,
});
const ribbon = (seats: Seat[]): RibbonView => ({
  networkId: 7,
  purpose: 'management',
  tabs: [],
  unknownDevices: [],
  cooling: [],
  density: [],
  hears: true,
  name: 'Management',
  prefix: '10.40.8.0/24',
  gateway: '10.40.8.1',
  vlan: 408,
  seats,
  undo: null,
  strips: [
    { purpose: 'pool', first: '10.40.8.32', last: '10.40.8.223', note: 'units' },
    { purpose: 'dhcp', first: '10.40.8.10', last: '10.40.8.40', note: 'first contact' },
  ],
});

describe('addresses', () => {
  it('convert text to number and back', () => {
    for (const address of ['0.0.0.0', '10.40.8.101', '255.255.255.255']) expect(text(number(address))).toBe(address);
  });
  it('are written as short as a person would', () => {
    expect(tail('10.40.8.101')).toBe('.101');
    expect(span(['10.40.8.101', '10.40.8.102'])).toBe('.101 – .102');
    expect(span(['10.40.8.101', '10.40.8.105'])).toBe('.101, … .105');
    expect(span([])).toBe('');
  });
});

describe('the ribbon', () => {
  it('has a row for every 32 addresses, and an end', () => {
    expect(rows('10.40.8.0/24')).toHaveLength(8);
    expect(rows('10.40.8.16/28')).toEqual([number('10.40.8.0')]);
    expect(rows('10.40.0.0/13').length).toBeLessThanOrEqual(128);
  });
  it('joins neighbours of one kind and names the run', () => {
    const all = blocks(
      ribbon([
        seat('10.40.8.101', 'ard-srv-001-oob', true),
        seat('10.40.8.102', 'ard-srv-002-oob', true),
        seat('10.40.8.103', 'ard-srv-003-oob'),
      ]),
      [],
    );
    expect(all.filter((block) => block.kind === 'proven').map((block) => block.name)).toEqual(['ard-srv-001 … 002']);
    expect(all.filter((block) => block.kind === 'planned').map((block) => block.name)).toEqual(['ard-srv-003-oob']);
  });
  it('does not name machines of two kinds in one breath', () => {
    const all = blocks(
      ribbon([
        seat('10.40.8.57', 'ard-fil-1', true),
        seat('10.40.8.58', 'ard-srh-001-oob', true),
        seat('10.40.8.59', 'ard-srh-002-oob', true),
      ]),
      [],
    );
    expect(all.filter((block) => block.kind === 'proven').map((block) => [block.name, block.short])).toEqual([
      ['ard-fil-1', 'fil'],
      ['ard-srh-001 … 002', '001 … 2'],
    ]);
  });
  it('draws gateway, ends and what is proposed, and no pools', () => {
    const line = { unitId: 1, networkId: 7, address: '10.40.8.101', hostName: 'a', unit: 'a' } as ProposalLine;
    const kinds = blocks(ribbon([]), [line]).map((block) => `${block.kind} ${text(block.first)}`);
    expect(kinds).toEqual([
      'dhcp 10.40.8.10',
      'kept 10.40.8.0',
      'kept 10.40.8.255',
      'kept 10.40.8.1',
      'fit 10.40.8.101',
    ]);
  });
  it('cuts a run where a row ends', () => {
    const all = blocks(ribbon([]), []);
    const dhcp = [0, 32]
      .flatMap((offset) => pieces(all, number('10.40.8.0') + offset))
      .filter((piece) => piece.block.kind === 'dhcp');
    expect(dhcp.map((piece) => [piece.at, piece.width])).toEqual([
      [10, 22],
      [0, 9],
    ]);
  });
  it('names runs by what differs', () => {
    expect(runName(['ard-srv-001-oob', 'ard-srv-012-oob'])).toBe('ard-srv-001 … 012');
    expect(runName(['left', 'right'])).toBe('left … right');
    expect(shortName(['ard-srv-006-oob', 'ard-srv-007-oob'])).toBe('006 … 7');
    expect(shortName(['ard-srv-008-oob'])).toBe('008');
    expect(['ard-iog-1', 'ard-hv-01', 'ard-srv-008-oob'].map(tiny)).toEqual(['iog', 'hv', '008']);
  });
});
