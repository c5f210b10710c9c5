import { describe, expect, it } from 'vitest';
import { compare } from '../src/stages/configure/bench/compare';
import type { BenchStep, Member } from '../src/stages/configure/bench/types';

const step = (title: string, more: Partial<BenchStep>): BenchStep => ({
  place: 0,
  title,
  sort: 'asked',
  answer: '',
  source: '',
  marks: [],
  progress: 'OPEN',
  sent: null,
  times: 0,
  by: '',
  at: null,
  evidence: '',
  about: 0,
  atMost: 0,
  fields: {},
  differ: [],
  told: {},
  ...more,
});
const member = (label: string, ...steps: BenchStep[]): Member => ({
  dialogueId: 1,
  label,
  line: '',
  cable: 'POSSIBLE',
  settings: '',
  state: '',
  mode: '',
  hold: null,
  note: '',
  prerequisite: '',
  identified: false,
  identity: '',
  openedAt: null,
  endedAt: null,
  steps,
  atPages: false,
  fillsPages: false,
  compare: null,
  values: [],
});
const wrong = (...members: Member[]) =>
  compare(members)
    .filter((row) => row.wrong)
    .map((row) => row.title);

describe('members side by side', () => {
  it('are wrong where what must be equal is not', () => {
    expect(
      wrong(
        member('left', step('clock', { answer: '10.40.8.6' })),
        member('right', step('clock', { answer: '10.40.8.7' })),
      ),
    ).toEqual(['clock']);
    expect(
      wrong(
        member('left', step('clock', { answer: '10.40.8.6' })),
        member('right', step('clock', { answer: '10.40.8.6' })),
      ),
    ).toEqual([]);
  });
  it('are wrong where what must differ does not', () => {
    const address = (text: string) => step('address', { answer: text, marks: ['DIFFERS'] });
    expect(wrong(member('left', address('10.40.8.40')), member('right', address('10.40.8.40')))).toEqual(['address']);
  });
  it('are compared by what was sent, once it was', () => {
    const planned = step('name', { answer: 'ard-1' });
    expect(
      wrong(
        member('left', planned),
        member('right', step('name', { answer: 'ard-1', sent: 'ard-2', progress: 'DONE' })),
      ),
    ).toEqual(['name']);
  });
  it('have the fields of their pages in it, without their passwords', () => {
    const node = (first: string, router: string) =>
      step('Node', {
        sort: 'page',
        fields: { 'First port': first, Router: router, 'New phrase': '••••••••' },
        differ: ['First port'],
      });
    expect(
      wrong(member('node 1', node('10.40.8.41', '10.40.8.1')), member('node 2', node('10.40.8.41', '10.40.8.2'))),
    ).toEqual(['Node: First port', 'Node: Router']);
    expect(
      wrong(member('node 1', node('10.40.8.41', '10.40.8.1')), member('node 2', node('10.40.8.43', '10.40.8.1'))),
    ).toEqual([]);
  });
  it('leave out what only one of them is asked, and what was left out', () => {
    expect(wrong(member('node 1', step('New cluster', { answer: 'ard' })), member('node 2'))).toEqual([]);
    expect(
      wrong(
        member('left', step('gateway', { answer: '10.40.8.1' })),
        member('right', step('gateway', { answer: '', progress: 'LEFT_OUT' })),
      ),
    ).toEqual([]);
  });
});
