/** The shapes that the server sends, as its OpenAPI document names them. */
export type MarkName = 'dark' | 'set' | 'work' | 'wait' | 'lit' | 'done' | 'fault';
export type Standing = 'HOLDS' | 'BROKEN' | 'NOT_REACHED' | 'NOT_MEASURED';
export type StageName = 'board' | 'prepare' | 'allocate' | 'configure' | 'prove' | 'handover';

export interface Door { firstLeadWanted: boolean; lab: boolean }
export interface Me { login: string; name: string; role: 'viewer' | 'engineer' | 'lead'; vantage: string }
export interface Brief { id: number; name: string; due: string | null; site: string }
export interface Found { bringUpId: number; bringUp: string; unitId: number; name: string; text: string }

export interface Cell { mark: MarkName; text: string; since: string | null }
export interface Row {
  unitId: number; name: string; position: string; rack: string; serial: string | null; mac: string | null; address: string | null;
  prepare: Cell; allocate: Cell; configure: Cell; prove: Cell; handover: Cell; standings: Standing[]; sentence: string;
}
export interface CourseStage { fault: string; text: string; percent: number }
export interface Todo { mark: MarkName; title: string; text: string; stage: StageName; unitId: number | null }
export interface BoardView {
  id: number; name: string; due: string | null; network: string; kindTitle: string; rows: Row[];
  course: Record<Exclude<StageName, 'board'>, CourseStage>; todos: Todo[]; waiting: Todo[];
}

export interface RangeText { purpose: 'pool' | 'kept' | 'dhcp'; run: string; note: string }
export interface Statement {
  name: string; prefix: string; gateway: string; vlan: number | null; domain: string; nameServers: string[]; timeServers: string[]; ranges: RangeText[];
}
export interface Finding { code: string; blocks: boolean; what: string; why: string }
export interface UnitFacts { id: number; number: number; position: string; serial: string | null; mac: string | null; model: string; firstAddress: string | null }
export interface PrepareView {
  groundwork: { network: Statement | null; findings: Finding[]; toPlace: number; free: number; undoableImport: number | null };
  choices: { id: number; name: string; prefix: string; vlan: number | null }[];
  units: UnitFacts[];
}
export interface LabelReport {
  importId: number | null;
  taken: { line: number; serial: string; mac: string; position: string; change: string }[];
  faults: { line: number; column: string; value: string; reason: string }[];
}

export interface ProposalLine {
  unitId: number; number: number; position: string; serial: string | null; address: string; hostName: string; fqdn: string; forward: string; reverse: string;
}
export interface Proposal { lines: ProposalLine[]; reason: string; pattern: string; fault: string | null }
export interface Strip { purpose: 'pool' | 'kept' | 'dhcp'; first: string; last: string; note: string }
export interface Seat { unitId: number; address: string; hostName: string; fqdn: string; position: string; ours: boolean; proven: boolean }
export interface RibbonView {
  name: string; prefix: string; gateway: string; vlan: number | null; strips: Strip[]; seats: Seat[]; undo: { taking: string; count: number } | null;
}

export interface Lane {
  runId: number; unitId: number; name: string; position: string; address: string;
  state: 'WAITING' | 'RUNNING' | 'DONE' | 'STOPPED' | 'CANCELLED' | 'SET_ASIDE';
  step: string; stepNumber: number; steps: number; note: string; advice: string;
  startedAt: string | null; stepAt: string | null; endedAt: string | null; cancelling: boolean;
}
export interface ConfigureView { lanes: Lane[]; ready: number; readyNames: string; hold: string; counts: Record<string, number> }
export interface StepView { step: string; at: string; note: string; holds: boolean }

export interface Endpoint {
  unitId: number; name: string; fqdn: string; address: string; position: string; serial: string | null; standings: Standing[]; height: number;
  proven: boolean; sentence: string; at: string | null; millis: number | null; checking: boolean; settingUp: boolean;
}
export interface ProveView { endpoints: Endpoint[]; checking: number; proven: number; lastAt: string | null; vantage: string }
export interface Detail {
  endpoint: Endpoint; press: string; rungs: { title: string; standing: Standing; seen: string }[];
  fields: { name: string; planned: string; found: string; agrees: boolean }[];
  firmware: string | null; fingerprint: string | null; place: string | null; provenAt: string | null;
  journal: { at: string; actor: string; act: string }[];
}

export interface HandoverView {
  name: string; units: number; proven: number;
  lines: { name: string; address: string; serial: string | null; mac: string; fingerprint: string | null; provenAt: string | null }[];
}
