import { api } from '../../lib/api';
import type { Proposal } from '../../lib/types';
import { bringUpId } from '../../routes';

/** Asks which addresses the units without any would get, from an address on and with names by a pattern. */
export function askProposal(pattern: string | null, from: string): Promise<Proposal> {
  const query = new URLSearchParams({ ...(pattern === null ? {} : { pattern }), ...(from ? { from } : {}) });
  return api.get<Proposal>(`/bring-ups/${bringUpId()}/proposal?${query.toString()}`);
}

/** Id and name of every unit of a proposal, those without a place last. */
export function unitsOf(proposal: Proposal | undefined): (readonly [number, string])[] {
  const units = new Map<number, string>();
  for (const each of [...(proposal?.lines ?? []), ...(proposal?.unplaced ?? [])]) units.set(each.unitId, each.unit);
  return [...units];
}
