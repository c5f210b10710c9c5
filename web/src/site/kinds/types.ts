/** The kinds as the server shows them, by the names that the screens use. */
import type { Api } from '../../lib/types';

export type KindLine = Api['KindLine'];
export type Remark = Api['Remark'];
export type KindSummary = Api['KindSummary'];
export type AdjustmentRow = Api['AdjustmentRow'];
export type Place = Api['AdjustmentPlace'];
export type SiteView = Api['AdjustmentSite'];
export type KindPage = Api['KindView'];
export type Change = Api['KindChange'];
export type KindFault = Api['KindFault'];
export type Draft = Api['KindDraftView'];
export type KindPreview = Api['KindPreview'];
export type KindExample = Api['KindExample'];
export type RecordingOfKind = Api['RecordingOfKind'];
export type UnitOfKind = Api['UnitOfKind'];
export type KeptSetup = Api['KeptSetup'];
export type LessonAnswers = Api['LessonAnswers'];
export type LessonStep = Api['LessonStep'];
export type LessonView = Api['LessonView'];
export type KindTried = Api['KindTried'];
export type KeptRecording = Api['KeptRecording'];
export type RecordingTrial = Api['RecordingTrial'];
export type RecordingKept = Api['RecordingKept'];
export type PackageView = Api['PackageView'];
export type TriedMoment = Api['TriedMoment'];

/** A time that people read at a glance. */
export function lasting(seconds: number | null): string {
  if (seconds === null) return '';
  return seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
}
