import { createQuery } from '@tanstack/svelte-query';
import { number, text } from '../../lib/address';
import { api, Problem } from '../../lib/api';
import { notices } from '../../lib/notices.svelte';
import { lookAgain } from '../../lib/query';
import type { Fit, Fits, Growth, Probed, Proposal, ProposalLine } from '../../lib/types';
import { m } from '../../messages';
import { bringUpId, chosenUnit } from '../../routes';
import { askProposal, unitsOf } from './proposal';
import { isV4 } from './ribbon';
import { search, show } from './shown';

const a = m.allocate;

/** Does something and asks again for what is shown; true, if it worked. */
export async function tried(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work();
    return true;
  } catch (error) {
    notices.fault(error);
    return false;
  } finally {
    lookAgain();
  }
}

/** Gives back what one allocation took. */
export async function undo(allocation: string): Promise<void> {
  if (await tried(() => api.post(`/bring-ups/${bringUpId()}/allocations/${allocation}/undo`))) notices.say(a.undone);
}

/** The addresses that are proposed for the units without any, and taking them. Made while a component starts. */
export class Placing {
  /** The pattern of names that was typed, or null for the one of the server. */
  pattern = $state<string | null>(null);
  /** Why the server refused the last allocation: somebody else was faster. */
  raced = $state('');
  busy = $state(false);
  probed = $state<Probed | null>(null);
  private nth = $state(0);

  readonly from = $derived(String(search().from ?? ''));

  readonly proposal = createQuery(() => ({
    queryKey: ['live', 'proposal', bringUpId(), this.pattern, this.from],
    placeholderData: (previous: Proposal | undefined) => previous,
    queryFn: () => askProposal(this.pattern, this.from),
  }));

  private readonly waiting = $derived(this.proposal.data?.lines ?? []);
  /** Ids and names of the units without addresses. */
  readonly units = $derived(unitsOf(this.proposal.data));
  /** Whether units are listed by name: some need several addresses, or have no place. */
  readonly named = $derived(
    this.units.some(([id]) => this.waiting.filter((line) => line.unitId === id).length > 1) ||
      this.units.length !== this.waiting.length,
  );
  /** A chosen unit without addresses is allocated alone; otherwise all units without addresses are. */
  readonly single = $derived(
    chosenUnit() !== null && this.units.some(([id]) => id === chosenUnit()) ? chosenUnit() : null,
  );

  readonly fits = createQuery(() => ({
    queryKey: ['live', 'fits', bringUpId(), this.single, this.from],
    enabled: this.single !== null,
    queryFn: () =>
      api.get<Fits>(`/bring-ups/${bringUpId()}/fits?unit=${this.single}${this.from ? `&at=${this.from}` : ''}`),
  }));

  readonly options = $derived(this.single === null ? [] : (this.fits.data?.fits ?? []));
  readonly fit = $derived<Fit | undefined>(this.options[Math.min(this.nth, this.options.length - 1)]);
  /** What "Allocate" would take. */
  readonly lines = $derived<ProposalLine[]>(this.single === null ? this.waiting : (this.fit?.lines ?? []));
  readonly growth = $derived<Growth[]>(
    this.single === null ? (this.proposal.data?.growth ?? []) : (this.fit?.growth ?? []),
  );

  /** Proposes from an address on, or from the lowest again if it is empty. */
  start(address: string): void {
    this.choose(0);
    show({ from: address });
  }

  choose(option: number): void {
    this.nth = option;
    this.probed = null;
  }

  /** Shows the next place that is free. */
  async next(): Promise<void> {
    if (this.single !== null) {
      if (this.from) this.start('');
      else this.choose(this.options.length ? (this.nth + 1) % this.options.length : 0);
      return;
    }
    const first = this.lines[0]?.address;
    if (!first || !isV4(first)) return;
    const after = text(number(first) + 1);
    try {
      const other = await askProposal(null, after);
      this.start(other.lines.length > 0 ? after : '');
    } catch (error) {
      notices.fault(error);
    }
  }

  async take(): Promise<void> {
    if (this.lines.length === 0 || this.busy) return;
    this.busy = true;
    this.raced = '';
    try {
      const { allocation } = await api.post<{ allocation: string }>(`/bring-ups/${bringUpId()}/allocations`, {
        pattern: this.single === null ? this.proposal.data?.pattern : null,
        lines: this.lines.map(({ unitId, role, networkId, address, hostName, alias }) => ({
          unitId,
          role,
          networkId,
          address,
          hostName,
          alias,
        })),
        growth: this.growth,
      });
      notices.say(a.taken(this.lines.length), () => void undo(allocation));
      this.start('');
    } catch (error) {
      if (error instanceof Problem && error.status === 409) this.raced = error.detail;
      else notices.fault(error);
    } finally {
      this.busy = false;
      lookAgain();
    }
  }

  /** Asks addresses whether something answers there, and gives what came back, if anything did. */
  async probe(addresses: string[]): Promise<Probed | null> {
    let answer: Probed | null = null;
    this.busy = true;
    await tried(async () => (answer = await api.post<Probed>(`/bring-ups/${bringUpId()}/probes`, { addresses })));
    this.busy = false;
    return answer;
  }

  async probeAndShow(addresses: string[] = this.lines.map((line) => line.address)): Promise<void> {
    this.probed = (await this.probe(addresses)) ?? this.probed;
  }
}
