import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import LargeValues from '../src/stages/configure/bench/LargeValues.svelte';
import { firstOpen, largeValues } from '../src/stages/configure/bench/large';
import type { BenchStep, Member } from '../src/stages/configure/bench/types';
import { recorded } from './views';

const bench = recorded.bench();
const step = (place: number, change: Partial<BenchStep>): BenchStep => ({
  ...bench.members[0]!.steps[0]!,
  place,
  sort: 'asked',
  marks: [],
  progress: 'OPEN',
  fields: {},
  answer: '',
  ...change,
});
const NETWORK = step(1, { sort: 'page', title: 'Network', fields: { Address: '10.40.8.41', Password: '••••••••' } });
const STEPS = [
  step(0, { title: 'Language', answer: 'English', progress: 'DONE' }),
  NETWORK,
  step(2, { title: 'Not asked', answer: 'x', progress: 'LEFT_OUT' }),
  step(3, { title: 'Restarts', sort: 'waits', about: 120 }),
  step(4, { title: 'Power feeds', answer: 'two', marks: ['FIRST'] }),
];

describe('values one by one', () => {
  it('are in the order of the work, each field alone, and begin at what is open', () => {
    const values = largeValues(STEPS);
    expect(values.map((value) => value.label)).toEqual(['Power feeds', 'Language', 'Address', 'Password', 'Restarts']);
    expect(values.map((value) => value.last)).toEqual([true, true, false, true, true]);
    expect(values.map((value) => value.hidden)).toEqual([false, false, false, true, false]);
    expect(firstOpen(values)).toBe(0);
    expect(firstOpen(largeValues([STEPS[0]!, NETWORK]))).toBe(1);
  });
});

describe('the sheet in large type', () => {
  function shown(member: Partial<Member> = {}, mayTick = true) {
    const ontick = vi.fn();
    const onclose = vi.fn();
    render(LargeValues, {
      unit: 'ard-hv-01',
      member: { ...bench.members[0]!, compare: null, steps: [STEPS[0]!, NETWORK], ...member },
      mayTick,
      ontick,
      onreveal: (_place: number, field: string) => Promise.resolve(field === 'Password' ? 'Hn4tRb7s' : null),
      onclose,
    });
    return { ontick, onclose };
  }
  const press = (name: string) => fireEvent.click(screen.getByRole('button', { name, hidden: true }));

  it('ticks a page once its last field is typed', async () => {
    const { ontick, onclose } = shown();
    expect(screen.getByText('10.40.8.41')).toBeInTheDocument();
    await press('Next');
    expect(ontick).not.toHaveBeenCalled();
    expect(screen.queryByText('Hn4tRb7s')).toBeNull();
    await press('Show for ten seconds');
    await waitFor(() => expect(screen.getByText('Hn4tRb7s')).toBeInTheDocument());
    await press('Done, next');
    expect(ontick).toHaveBeenCalledExactlyOnceWith(1, true);
    expect(onclose).toHaveBeenCalledOnce();
  });

  it('goes back and forth with the arrow keys, and ticks nothing by that', async () => {
    const { ontick } = shown();
    await fireEvent.keyDown(window, { key: 'ArrowLeft' });
    expect(screen.getByText('English')).toBeInTheDocument();
    await fireEvent.keyDown(window, { key: 'ArrowRight' });
    await fireEvent.keyDown(window, { key: 'ArrowRight' });
    await fireEvent.keyDown(window, { key: 'ArrowRight' });
    expect(screen.getByText('Password')).toBeInTheDocument();
    expect(ontick).not.toHaveBeenCalled();
  });

  it('shows a viewer the values without a password, and ticks nothing', async () => {
    const { ontick } = shown({}, false);
    await press('Next');
    expect(screen.queryByRole('button', { name: 'Show for ten seconds', hidden: true })).toBeNull();
    await press('Close the sheet');
    expect(ontick).not.toHaveBeenCalled();
  });

  it('lets nothing be ticked before the machine was compared with its label', () => {
    const steps = [{ ...NETWORK, marks: ['COMPARES'] }];
    shown({ steps, compare: { read: null, by: null, at: null } });
    expect(screen.getByText(/First compare the machine/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Next', hidden: true })).toBeDisabled();
  });
});
