/** The shapes of setups on console lines. */
export type DialogueState =
  'SHUT' | 'BY_HAND' | 'UNSURE' | 'FOLLOWING' | 'WAITING' | 'HELD' | 'CUT' | 'STOPPED' | 'DONE' | '';
export type Mode = 'WATCH' | 'ASK' | 'RUN' | '';
export type Progress = 'OPEN' | 'SENT' | 'DONE' | 'LEFT_OUT';

export interface Hold {
  why: string;
  step: number;
  sentence: string;
  shown: string;
  typed: string;
  passable: boolean;
}
export interface BenchStep {
  place: number;
  title: string;
  sort: 'asked' | 'summary' | 'waits' | 'page';
  answer: string;
  source: string;
  marks: string[];
  progress: Progress;
  sent: string | null;
  times: number;
  by: string;
  at: string | null;
  evidence: string;
  about: number;
  atMost: number;
  fields: Record<string, string>;
  differ: string[];
}
export interface Member {
  dialogueId: number | null;
  label: string;
  line: string;
  settings: string;
  state: DialogueState;
  mode: Mode;
  hold: Hold | null;
  note: string;
  prerequisite: string;
  identified: boolean;
  identity: string;
  openedAt: string | null;
  endedAt: string | null;
  steps: BenchStep[];
  atPages: boolean;
  fillsPages: boolean;
  compare: { read: string | null; by: string | null; at: string | null } | null;
}
export interface BenchView {
  unitId: number;
  name: string;
  kindTitle: string;
  position: string;
  plug: string;
  bring: string[];
  runState: string;
  runNote: string;
  members: Member[];
}
/** What is told at each change, before the whole is asked again. */
export interface LineStanding {
  state: DialogueState;
  mode: Mode;
  hold: Hold | null;
  note: string;
  hand: string;
  lineUp: boolean;
  identified: boolean;
  progress: Progress[];
  asks: number;
}

export interface Part {
  kind: 'hands' | 'wait' | 'held';
  title: string;
  from: string | null;
  to: string | null;
  about: number;
  atMost: number;
}
export interface ConsoleLane {
  unitId: number;
  dialogueId: number;
  name: string;
  state: DialogueState;
  prerequisite: string;
  parts: Part[];
  ahead: Part[];
}
export interface Startable {
  unitId: number;
  name: string;
  kindTitle: string;
  position: string;
  alone: boolean;
}
export interface LanesView {
  lanes: ConsoleLane[];
  startable: Startable[];
}
