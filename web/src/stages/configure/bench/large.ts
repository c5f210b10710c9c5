import type { BenchStep } from './types';

/** One thing to type or to look at, alone on the screen. */
export interface LargeValue {
  /** Of its step. */
  place: number;
  /** Of a page, the field; empty where the step is one value. */
  field: string;
  title: string;
  /** What the value is called; the same as the title where the step is one value. */
  label: string;
  value: string;
  /** A password, which is shown on request. */
  hidden: boolean;
  /** Whether the step is done once this is. */
  last: boolean;
  done: boolean;
}

const HIDDEN = /^•+$/;
const isFirst = (step: BenchStep) => step.marks.includes('FIRST');

/** The steps of a member in the order of the work, one value each; what need not be done is left out. */
export function largeValues(steps: BenchStep[]): LargeValue[] {
  const asked = steps.filter((step) => step.progress !== 'LEFT_OUT');
  return [...asked.filter(isFirst), ...asked.filter((step) => !isFirst(step))].flatMap(valuesOf);
}

function valuesOf(step: BenchStep): LargeValue[] {
  const of = { place: step.place, title: step.title, done: step.progress === 'DONE' };
  const fields = Object.entries(step.fields);
  if (fields.length > 0)
    return fields.map(([label, value], i) => ({
      ...of,
      field: label,
      label,
      value,
      hidden: HIDDEN.test(value),
      last: i === fields.length - 1,
    }));
  const value = step.sort === 'summary' ? step.source : step.answer;
  return [{ ...of, field: '', label: step.title, value, hidden: HIDDEN.test(value), last: true }];
}

/** Where to begin: at the first value of the first step that is still to be done. */
export const firstOpen = (values: LargeValue[]): number =>
  Math.max(
    0,
    values.findIndex((value) => !value.done),
  );
