/** The shapes that the server sends, as its OpenAPI document names them. */
export type MarkName = 'dark' | 'set' | 'work' | 'wait' | 'lit' | 'done' | 'fault';
export type Standing = 'HOLDS' | 'BROKEN' | 'NOT_REACHED' | 'NOT_MEASURED';
export type StageName = 'board' | 'prepare' | 'allocate' | 'configure' | 'prove' | 'handover';

export interface Door {
  firstLeadWanted: boolean;
  lab: boolean;
}
export interface Me {
  login: string;
  name: string;
  role: 'viewer' | 'engineer' | 'lead';
  vantage: string;
}
export interface SessionView {
  id: number;
  agent: string;
  source: string;
  createdAt: string;
  seenAt: string;
  endsAt: string;
  own: boolean;
}
export interface PersonView {
  id: number;
  login: string;
  name: string;
  role: string;
  disabledAt: string | null;
  invitedUntil: string | null;
  hasPassword: boolean;
  sessions: number;
  seenAt: string | null;
}
export interface Invited {
  id: number;
  login: string;
  token: string;
  endsAt: string;
}
export interface Brief {
  id: number;
  name: string;
  due: string | null;
  site: string;
  siteCode: string;
  units: number;
  signed: number;
}
export interface Found {
  bringUpId: number;
  bringUp: string;
  unitId: number;
  name: string;
  text: string;
}

export interface Cell {
  mark: MarkName;
  text: string;
  since: string | null;
}
export interface Row {
  unitId: number;
  name: string;
  position: string;
  rack: string | null;
  kind: string;
  serial: string | null;
  mac: string | null;
  address: string | null;
  prepare: Cell;
  allocate: Cell;
  configure: Cell;
  prove: Cell;
  handover: Cell;
  standings: Standing[];
  sentence: string;
}
export interface CourseStage {
  fault: string;
  text: string;
  percent: number;
}
export interface Todo {
  mark: MarkName;
  title: string;
  text: string;
  stage: StageName;
  unitId: number | null;
}
export interface BoardView {
  id: number;
  name: string;
  due: string | null;
  network: string;
  kindTitle: string;
  units: number;
  rows: Row[];
  course: Record<Exclude<StageName, 'board'>, CourseStage>;
  todos: Todo[];
  waiting: Todo[];
}

export interface RangeText {
  purpose: 'pool' | 'kept' | 'dhcp';
  run: string;
  note: string;
}
export interface Statement {
  id: number;
  purpose: string;
  segment: string;
  realm: string;
  mtu: number | null;
  permanent: boolean;
  name: string;
  prefix: string;
  gateway: string;
  vlan: number | null;
  domain: string;
  nameServers: string[];
  timeServers: string[];
  ranges: RangeText[];
  version: string;
}
export interface FindingFix {
  label: string;
  act: string;
  id: number;
  member: string;
  field: string;
  value: string;
}
export interface Finding {
  code: string;
  blocks: boolean;
  what: string;
  why: string;
  about: { networkId: number | null; unitId: number | null };
  fix: FindingFix | null;
}
export interface UnitLabel {
  id: number;
  number: number;
  name: string;
  kind: string;
  kindVersion: number;
  members: number;
  position: string;
  serial: string | null;
  mac: string | null;
  model: string;
  firstAddress: string | null;
  known: boolean;
}
export interface Value {
  value: string;
  source: string;
}
export interface SheetRow {
  unitId: number;
  unit: string;
  kind: string;
  kindVersion: number;
  member: string;
  first: boolean;
  cells: Record<string, Value>;
}
export interface Asks {
  name: string;
  title: string;
  scope: 'UNIT' | 'MEMBER';
  type: string;
  example: string;
  find: string;
  asked: string;
  choices: string[];
  wanted: boolean;
  permanent: boolean;
  secret: boolean;
}
export interface KindBrief {
  id: string;
  version: number;
  title: string;
  about: string;
  counts: number[];
  bring: string[];
  plug: string;
  facts: Asks[];
}
export interface Sort {
  sort: string;
  title: string;
  example: string;
  fields: Asks[];
}
export interface Item {
  id: number;
  sort: string;
  name: string;
  values: Record<string, string>;
  version: string;
}
export interface Measured {
  kind: 'GATEWAY' | 'NAME' | 'TIME' | 'RELAY' | 'PROXY';
  address: string;
  state: 'FINE' | 'ODD' | 'LIES' | 'SILENT';
  sentence: string;
  detail: Record<string, string>;
  replies: { request: 'UPDATE' | 'SENDER' | 'MAIL_DOMAIN'; about: string; accepted: boolean; text: string }[];
  at: string;
}
export interface PrepareView {
  site: {
    network: Statement | null;
    networks: Statement[];
    findings: Finding[];
    toPlace: number;
    free: number;
    undoableImport: number | null;
  };
  choices: {
    id: number;
    name: string;
    prefix: string;
    vlan: number | null;
    purpose: string;
    domain: string;
    nameServers: string[];
    timeServers: string[];
  }[];
  units: UnitLabel[];
  kinds: KindBrief[];
  rows: SheetRow[];
  services: Measured[];
  siteResources: Item[];
  knownUnits: number;
}
export interface CellText {
  unitId: number;
  member: string;
  name: string;
  value: string;
  seen?: string;
}
export interface FactsReport {
  changeId: number | null;
  changed: number;
  faults: (CellText & { reason: string })[];
}
/** A column of a list that somebody hands in, and what is read from it. */
export interface ColumnView {
  index: number;
  heading: string;
  sample: string;
  meaning: string;
}
export interface TableReport {
  changeId: number | null;
  cells: number;
  faults: { line: number; column: string; value: string; reason: string }[];
  columns: ColumnView[];
  meanings: { word: string; title: string }[];
}
export interface LabelReport {
  importId: number | null;
  taken: { line: number; serial: string; mac: string; position: string; change: string }[];
  faults: { line: number; column: string; value: string; reason: string }[];
  columns: ColumnView[];
}

export interface ProposalLine {
  unitId: number;
  unit: string;
  number: number;
  position: string;
  serial: string | null;
  role: string;
  networkId: number;
  address: string;
  hostName: string;
  fqdn: string;
  forward: string;
  reverse: string;
  alias: string | null;
}
export interface Growth {
  unitId: number;
  networkId: number;
  run: string;
}
export interface Proposal {
  lines: ProposalLine[];
  growth: Growth[];
  unplaced: { unitId: number; unit: string; why: string }[];
  reason: string;
  pattern: string;
  fault: string | null;
}
export interface Fit {
  lines: ProposalLine[];
  growth: Growth[];
  reasons: string[];
}
export interface Fits {
  unitId: number;
  unit: string;
  kind: string;
  about: string;
  fits: Fit[];
  almost: string | null;
  fault: string | null;
}
export interface Strip {
  purpose: 'pool' | 'kept' | 'dhcp' | 'growth';
  first: string;
  last: string;
  note: string;
}
export interface Seat {
  unitId: number;
  unit: string;
  role: string;
  address: string;
  hostName: string;
  fqdn: string;
  position: string;
  ours: boolean;
  proven: boolean;
}
export interface UnknownDevice {
  address: string;
  mac: string | null;
  sentence: string;
  firstHeard: string | null;
  lastHeard: string | null;
}
export interface NetworkTab {
  id: number;
  name: string;
  prefix: string;
  purpose: string;
  vlan: number | null;
  permanent: boolean;
  free: number;
  taken: number;
  size: number;
}
export interface Density {
  first: string;
  taken: number;
  kept: number;
  pool: number;
}
export interface Probed {
  asked: number;
  possible: boolean;
  answering: UnknownDevice[];
}
export interface NamesView {
  planned: number;
  made: number;
  refused: number;
  unknown: number;
  open: { id: number; zone: string; line: string; state: string; answer: string }[];
  zoneLines: string;
  withoutZone: string[];
}
export interface RibbonView {
  networkId: number;
  name: string;
  prefix: string;
  purpose: string;
  gateway: string;
  vlan: number | null;
  tabs: NetworkTab[];
  strips: Strip[];
  seats: Seat[];
  unknownDevices: UnknownDevice[];
  cooling: string[];
  density: Density[];
  undo: { allocation: string; count: number } | null;
  hears: boolean;
}

export interface Lane {
  runId: number;
  unitId: number;
  name: string;
  position: string;
  address: string;
  state: 'WAITING' | 'RUNNING' | 'DONE' | 'STOPPED' | 'CANCELLED' | 'SET_ASIDE';
  step: string;
  stepNumber: number;
  steps: number;
  note: string;
  advice: string;
  startedAt: string | null;
  stepAt: string | null;
  endedAt: string | null;
  cancelling: boolean;
}
export interface ConfigureView {
  lanes: Lane[];
  ready: number;
  readyNames: string;
  hold: string;
  counts: Record<string, number>;
}
export interface StepView {
  step: string;
  at: string;
  note: string;
  holds: boolean;
}

export interface Endpoint {
  unitId: number;
  claimId: number;
  role: string;
  name: string;
  fqdn: string;
  address: string;
  position: string;
  serial: string | null;
  standings: Standing[];
  height: number;
  beside: Partial<Record<'NAME' | 'REVERSE' | 'TIME', Standing>>;
  proven: boolean;
  sentence: string;
  at: string | null;
  millis: number | null;
  checking: boolean;
  settingUp: boolean;
  ready: boolean;
}
/** One thing that explains several endpoints. */
export interface SharedCause {
  title: string;
  sentence: string;
  press: string;
  endpoints: string[];
  records: boolean;
}
/** Something that an endpoint shows otherwise than it was accepted. */
export interface TraitChange {
  unitId: number;
  claimId: number;
  role: string;
  name: string;
  what: string;
  before: string;
  now: string;
  since: string;
  acceptable: boolean;
  fault: boolean;
  reason: string;
  by: string;
}
export type RungName = 'ANSWERS' | 'PORT' | 'TLS' | 'SERVICE' | 'IDENTITY' | 'AS_PLANNED' | 'SAFE';
/** A place in another network. */
export interface VantageView {
  id: number;
  name: string;
  madeAt: string;
  seenAt: string | null;
  linked: boolean;
  networks: Record<string, string>;
}
/** Where notices go. */
export interface NoticeTarget {
  id: number;
  sort: 'webhook' | 'mail';
  to: string;
  fingerprint: string | null;
  sentAt: string | null;
  fault: string;
}
export interface ProveView {
  endpoints: Endpoint[];
  checking: number;
  proven: number;
  lastAt: string | null;
  vantage: string;
  minutes: number;
  causes: SharedCause[];
  changes: TraitChange[];
  unknownDevices: {
    network: string;
    address: string;
    mac: string | null;
    sentence: string;
    firstHeard: string;
    lastHeard: string;
  }[];
}
export interface Seen {
  title: string;
  standing: Standing;
  seen: string;
  parts: { name: string; standing: Standing; seen: string }[];
}
export interface Detail {
  endpoint: Endpoint;
  press: string;
  rungs: Seen[];
  marks: Seen[];
  shown: string | null;
  before: { at: string; height: number; proven: boolean; sentence: string; standings: string }[];
  fields: { name: string; planned: string; found: string; agrees: boolean }[];
  firmware: string | null;
  fingerprint: string | null;
  place: string | null;
  provenAt: string | null;
  changes: TraitChange[];
  hostKey: string | null;
  replaceable: boolean;
  request: string | null;
  toCompare: number | null;
  journal: { at: string; actor: string; act: string }[];
}

export interface SignStanding {
  unitId: number;
  unit: string;
  kind: string;
  state: 'SIGNED' | 'READY' | 'BLOCKED';
  why: string;
  fault: boolean;
  face: string;
  digest: string | null;
  signedBy: string;
  signedAt: string | null;
  provenAt: string | null;
}
export interface UnitPart {
  member: string;
  facts: Record<string, { title: string; value: string }>;
}
export interface TokenView {
  id: number;
  name: string;
  role: string;
  endsAt: string;
  usedAt: string | null;
}
export interface ChainLook {
  links: number;
  records: number;
  breaks: { number: number; why: string }[];
  last: string;
}
export interface HandoverView {
  name: string;
  names: number;
  exports: string[];
  units: SignStanding[];
  lines: {
    unitId: number;
    claimId: number;
    name: string;
    role: string;
    address: string;
    serial: string;
    certificate: string;
    provenAt: string | null;
  }[];
  proposed: { unitId: number; unit: string; text: string; due: string }[];
  retired: { name: string; serial: string; place: string; why: string; by: string; at: string }[];
  items: {
    id: number;
    unit: string;
    sort: string;
    text: string;
    reason: string;
    due: string;
    lead: string;
    late: boolean;
  }[];
}
