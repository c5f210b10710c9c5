import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import LearnQuestions from '../src/site/kinds/LearnQuestions.svelte';
import { noAnswers, proposed, toggled, type Answers } from '../src/site/kinds/learn';
import type { LessonView } from '../src/site/kinds/types';

const lesson: LessonView = {
  complete: true,
  identified: true,
  wakes: false,
  lines: [
    { entry: 0, shown: ['Metering gateway MG-7001, empty'], question: 'phase order:', typed: 'acb', leftOut: false },
    { entry: 1, shown: [], question: 'gateway> ', typed: 'set feed north', leftOut: false },
    { entry: 2, shown: [], question: 'owner word:', typed: null, leftOut: false },
  ],
  steps: [],
  facts: [],
  questions: [
    { sort: 'TEXT', entries: [0], evidence: ['phase order:'], options: ['FACT', 'SAME', 'ALWAYS'] },
    { sort: 'COMMANDS', entries: [1], evidence: ['gateway>'], options: [] },
    { sort: 'MARKS', entries: [0, 2], evidence: ['phase order:', 'erase it?'], options: ['2 DESTROYS'] },
  ],
  description: null,
  faults: [],
  agrees: null,
  differences: [],
  open: [],
};

function shown(): Answers[] {
  const said: Answers[] = [];
  render(LearnQuestions, {
    lesson,
    answers: noAnswers(),
    busy: false,
    proposals: proposed(lesson),
    onanswer: (answers: Answers) => said.push(answers),
    onlook: vi.fn(),
  });
  return said;
}

describe('what only a person knows about a setup', () => {
  it('says that nothing wakes a silent line', () => {
    shown();
    expect(screen.getByText(/no key that wakes a silent line/)).toBeTruthy();
  });

  it('says what was typed, and takes what it is', async () => {
    const said = shown();
    expect(screen.getByText(/You typed “acb”/)).toBeTruthy();
    await fireEvent.click(screen.getByRole('button', { name: 'the same on every unit' }));
    expect(said.at(-1)?.texts).toEqual({ 0: 'SAME' });
  });

  it('takes the part of a command that differs from unit to unit', async () => {
    const said = shown();
    await fireEvent.input(screen.getByRole('textbox', { name: /set feed north/ }), { target: { value: 'north' } });
    await fireEvent.click(screen.getByRole('button', { name: 'None of them holds a password' }));
    expect(said.at(-1)).toMatchObject({ commandsTold: true, parts: { 1: ['north'] } });
  });

  it('proposes what the words of a question speak for, and waits for a person', async () => {
    const said = shown();
    const marks = screen.getByText('erase it?').nextElementSibling as HTMLElement;
    expect(within(marks).getByRole('button', { name: 'destroys' }).getAttribute('aria-pressed')).toBe('true');
    await fireEvent.click(within(marks).getByRole('button', { name: 'permanent' }));
    expect(said).toEqual([]);
    await fireEvent.click(screen.getByRole('button', { name: 'That is right' }));
    expect(said.at(-1)?.marks).toEqual({ 2: ['DESTROYS', 'PERMANENT'] });
  });

  it('asks where new facts are found, but not for passwords that are generated', async () => {
    const facts: LessonView['facts'] = [
      { name: 'phase-order', title: 'phase order', sort: 'TEXT', find: '' },
      { name: 'password', title: 'password', sort: 'MADE_SECRET', find: '' },
    ];
    const said: Answers[] = [];
    render(LearnQuestions, {
      lesson: { ...lesson, facts },
      answers: noAnswers(),
      busy: false,
      proposals: {},
      onanswer: (answers: Answers) => said.push(answers),
      onlook: vi.fn(),
    });
    expect(screen.queryByRole('textbox', { name: 'Where password is found' })).toBeNull();
    const field = screen.getByRole('textbox', { name: 'Where phase order is found' });
    await fireEvent.input(field, { target: { value: 'order sheet' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(said.at(-1)?.found).toEqual({ 'phase-order': 'order sheet' });
  });

  it('sets a mark and takes it back', () => {
    expect(toggled(toggled({}, 3, 'TERMS'), 3, 'TERMS')).toEqual({ 3: [] });
  });
});
