import { createRouter } from 'sv-router';
import type { StageName } from './lib/types';
import Frame from './frame/Frame.svelte';
import BringUps from './stages/board/BringUps.svelte';
import Board from './stages/board/Board.svelte';
import { m } from './messages';

export const stages: StageName[] = ['board', 'prepare', 'allocate', 'configure', 'prove', 'handover'];

export const { route, navigate } = createRouter({
  '/': BringUps,
  '/b': {
    '/:id': {
      '/': Board,
      '/prepare': () => import('./stages/prepare/Prepare.svelte'),
      '/allocate': () => import('./stages/allocate/Allocate.svelte'),
      '/configure': () => import('./stages/configure/Configure.svelte'),
      '/prove': () => import('./stages/prove/Prove.svelte'),
      '/handover': () => import('./stages/handover/HandOver.svelte'),
      layout: Frame,
    },
  },
  '/kinds': {
    '/': () => import('./site/kinds/Kinds.svelte'),
    '/new': () => import('./site/kinds/NewKind.svelte'),
    '/:kind': () => import('./site/kinds/Kind.svelte'),
  },
  '/people': () => import('./site/people/People.svelte'),
  '/server': () => import('./site/server/Server.svelte'),
  '*': BringUps,
  hooks: {
    afterLoad({ pathname }) {
      if (pathname === '/people' || pathname === '/server') {
        document.title = `${(pathname === '/people' ? m.people : m.server).title} · ${m.name}`;
        return;
      }
      if (pathname.startsWith('/kinds')) {
        document.title = `${m.kinds.title} · ${m.name}`;
        return;
      }
      const stage = pathname.split('/')[3] as StageName | undefined;
      document.title = `${stage ? m.stages[stage].replace(/^\d /, '') : m.stages.board} · ${m.name}`;
    },
  },
});

/** The address of a stage; the chosen unit goes with it. */
export function path(bringUp: number, stage: StageName, unit?: number | null): string {
  return `/b/${bringUp}${stage === 'board' ? '' : '/' + stage}${unit ? `?unit=${unit}` : ''}`;
}

export function go(to: string): void {
  const url = new URL(to, location.origin);
  const search = Object.fromEntries(url.searchParams);
  void (navigate as unknown as (path: string, options: { search: Record<string, string> }) => Promise<unknown>)(
    url.pathname,
    { search },
  );
}

/** The bring-up in the address. */
export function bringUpId(): number {
  return Number((route.params as { id?: string }).id ?? 0);
}

/** The chosen unit, which follows from stage to stage. */
export function chosenUnit(): number | null {
  const unit = Number((route.search as Record<string, unknown>).unit ?? 0);
  return unit > 0 ? unit : null;
}

export function stageOfPath(): StageName {
  const part = route.pathname.split('/')[3] as StageName | undefined;
  return part && stages.includes(part) ? part : 'board';
}

/** The kind in the address, or empty. */
export const chosenKind = () => (route.params as { kind?: string }).kind ?? '';

/** A part of the address behind the question mark, or empty. */
export const searched = (name: string) => (route.search as Record<string, string | undefined>)[name] ?? '';

/** Which of the chosen unit's addresses, or null for the one that it is managed at. */
export function chosenAddress(): number | null {
  const claim = Number((route.search as Record<string, unknown>).at ?? 0);
  return claim > 0 ? claim : null;
}

/** Chooses a unit, or none, and stays in the stage. Filters in the address stay too. */
export function choose(unit: number | null, address?: number): void {
  const search = { ...(route.search as Record<string, string>) };
  delete search.unit;
  delete search.at;
  if (unit) search.unit = String(unit);
  if (unit && address) search.at = String(address);
  const to = new URLSearchParams(search).toString();
  go(route.pathname + (to ? '?' + to : ''));
}
