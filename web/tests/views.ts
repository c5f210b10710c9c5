import bench from './views/bench.json';
import fits from './views/fits.json';
import lanes from './views/lanes.json';
import names from './views/names.json';
import prepare from './views/prepare.json';
import proposal from './views/proposal.json';
import ribbon from './views/ribbon.json';
import type { Fits, NamesView, PrepareView, Proposal, RibbonView } from '../src/lib/types';
import type { BenchView, LanesView } from '../src/stages/configure/bench/types';

/** What a demo has answered (bin/record-views.mjs); a copy for each test, which may change it. */
export const recorded = {
  bench: () => structuredClone(bench) as BenchView,
  fits: () => structuredClone(fits) as Fits,
  lanes: () => structuredClone(lanes) as LanesView,
  names: () => structuredClone(names) as NamesView,
  // a sheet has other columns for each kind, which the compiler takes for types of their own
  prepare: () => structuredClone(prepare) as unknown as PrepareView,
  proposal: () => structuredClone(proposal) as Proposal,
  ribbon: () => structuredClone(ribbon) as RibbonView,
};
