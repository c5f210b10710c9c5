/** The shapes of setups on console lines, by the names that the screens use. */
import type { Api } from '../../../lib/types';

export type BenchView = Api['BenchView'];
export type Member = Api['BenchMember'];
export type ServicePortAnswer = Api['ServicePortAnswer'];
export type BenchStep = Api['BenchStep'];
export type Hold = Api['HoldView'];
export type DialogueState = Member['state'];
export type Mode = Member['mode'];
export type Progress = BenchStep['progress'];
/** What the WebSocket of a line tells at each change, before the whole is asked again. */
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
export type Part = Api['LanePart'];
export type ConsoleLane = Api['BenchLane'];
export type Startable = Api['StartableUnit'];
export type LanesView = Api['BenchLanes'];
