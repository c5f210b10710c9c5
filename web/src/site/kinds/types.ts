/** The kinds as the server shows them. */
export interface KindLine {
  id: string;
  title: string;
  version: number | null;
  way: string;
  shipped: boolean;
  retired: boolean;
  draft: boolean;
  update: boolean;
  units: number;
  older: number;
  done: number;
  usualSeconds: number | null;
  last: { state: string; at: string } | null;
}

export interface Remark {
  text: string;
  grave: boolean;
  more: string;
}

export interface KindSummary {
  before: string[];
  facts: {
    name: string;
    title: string;
    whose: string;
    find: string;
    asked: string;
    remarks: Remark[];
    fallback: string;
  }[];
  addresses: string[];
  name: { pattern: string; longest: number };
  setup: {
    line: string;
    oneByOne: boolean;
    steps: { title: string; remarks: Remark[]; answer: string }[];
    wipe: string[];
  };
  proven: string[];
  restart: string;
  flows: string[];
}

export interface AdjustmentRow {
  id: number;
  siteId: number;
  site: string;
  bringUpId: number | null;
  bringUp: string | null;
  what: string;
  value: string;
  hasPassword: boolean;
  reason: string;
  by: string;
  at: string;
}

export interface Place {
  what: string;
  title: string;
  value: string;
  form: string;
  secret: boolean;
}

export interface SiteView {
  id: number;
  name: string;
  bringUps: { id: number; name: string }[];
}

export interface KindPage {
  line: KindLine;
  about: string;
  shortName: string;
  fault: string | null;
  summary: KindSummary | null;
  draft: Draft | null;
  history: {
    version: number;
    digest: string;
    note: string;
    shipped: boolean;
    by: string;
    at: string;
    units: number;
  }[];
  uses: { bringUpId: number; bringUp: string; version: number; units: number }[];
  setups: {
    bringUpId: number;
    unitId: number;
    unit: string;
    version: number;
    state: string;
    endedAt: string;
    seconds: number;
  }[];
  adjustments: AdjustmentRow[];
  places: Place[];
  sites: SiteView[];
}

export interface Change {
  part: string;
  sort: string;
  what: string;
  before: string;
  after: string;
}

export interface KindFault {
  line: number;
  column: number;
  path: string;
  reason: string;
}

export interface Draft {
  kindId: string;
  text: string;
  version: string;
  faults: KindFault[];
  title: string;
  summary: KindSummary | null;
}

/** A time that people read at a glance. */
export function lasting(seconds: number | null): string {
  if (seconds === null) return '';
  return seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
}
