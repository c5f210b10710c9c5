import type { LessonAnswers, LessonView } from './types';

/** What was answered about a setup so far. */
export type Answers = Omit<Required<LessonAnswers>, 'marks'> & { marks: Record<string, StepMark[]> | null };
export type Meaning = 'ALWAYS' | 'FACT' | 'SAME';
export type StepMark = 'PERMANENT' | 'DESTROYS' | 'TERMS' | 'OPTIONAL';

export const STEP_MARKS: StepMark[] = ['PERMANENT', 'DESTROYS', 'TERMS', 'OPTIONAL'];

export function noAnswers(): Answers {
  return { texts: {}, commandsTold: false, parts: {}, values: {}, marks: null, found: {} };
}

/** The marks that the words of the questions speak for, by entry. */
export function proposed(lesson: LessonView): Record<string, StepMark[]> {
  const marks: Record<string, StepMark[]> = {};
  const asked = lesson.questions.find((question) => question.sort === 'MARKS');
  for (const option of asked?.options ?? []) {
    const [entry, mark] = option.split(' ');
    (marks[entry!] ??= []).push(mark as StepMark);
  }
  return marks;
}

/** Answers with one mark more, or one fewer. */
export function toggled(marks: Record<string, StepMark[]>, entry: number, mark: StepMark): Record<string, StepMark[]> {
  const of = marks[entry] ?? [];
  return { ...marks, [entry]: of.includes(mark) ? of.filter((each) => each !== mark) : [...of, mark] };
}
