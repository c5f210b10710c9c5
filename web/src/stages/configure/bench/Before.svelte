<script lang="ts">
  import { api } from '../../../lib/api';
  import { notices } from '../../../lib/notices.svelte';
  import { lookAgain } from '../../../lib/query';
  import { session } from '../../../lib/session.svelte';
  import type { FactsReport } from '../../../lib/types';
  import B from '../../../parts/B.svelte';
  import Mark from '../../../parts/Mark.svelte';
  import { atTime } from '../../../lib/time';
  import { m } from '../../../messages';
  import { bringUpId } from '../../../routes';
  import { serial } from './cables.svelte';
  import ServicePort from './ServicePort.svelte';
  import type { BenchView, Member } from './types';

  /** Beside the steps while no line is open: what to bring and plug in; afterwards, whether the unit is reached. */
  let { bench, member, unitId }: { bench: BenchView; member: Member; unitId: number } = $props();

  interface Reached {
    role: string;
    address: string;
    answers: boolean;
    sentence: string;
    from: string;
  }
  let reached = $state.raw<Reached[]>([]);
  let asking = $state(false);

  const hasConsole = $derived(bench.byHand || member.line !== '' || member.steps.some((step) => step.sort === 'asked'));
  /** A machine that asks line by line can be asked over any cable; a line that is open has one. */
  const canPlug = $derived(
    member.cable === 'POSSIBLE' &&
      (bench.byHand || member.steps.some((step) => step.sort === 'asked')) &&
      (member.state === '' || (member.state === 'BY_HAND' && !member.line)),
  );

  async function useBrowser(): Promise<void> {
    asking = true;
    try {
      const cells = [{ unitId, member: member.label, name: 'console', value: 'browser' }];
      const report = await api.put<FactsReport>(`/bring-ups/${bringUpId()}/facts`, { cells });
      if (report.faults.length > 0) throw new Error(report.faults[0]!.reason);
      await api.post(`/units/${unitId}/console/lines`);
      notices.say(
        m.bench.cable.used(`${bench.name} ${member.label}`),
        () =>
          void api
            .post(`/sheet-changes/${report.changeId}/undo`)
            .then(lookAgain, (error: unknown) => notices.fault(error)),
      );
      lookAgain();
    } catch (error) {
      notices.fault(error);
    } finally {
      asking = false;
    }
  }

  async function askReach(): Promise<void> {
    asking = true;
    try {
      reached = await api.post<Reached[]>(`/units/${unitId}/console/reach`);
    } catch (error) {
      notices.fault(error);
    } finally {
      asking = false;
    }
  }
</script>

<section class="sheet before">
  <h2>{bench.name} {member.label}</h2>
  {#if bench.runState === 'DONE' || member.state === 'DONE'}
    <div class="say good">{bench.byHand ? m.bench.manual.set : m.bench.set}</div>
    {#if bench.runState === 'DONE'}
      {#if session.mayWork}<B disabled={asking} onclick={() => void askReach()}>{m.bench.reach}</B>{/if}
      {#if reached.length > 0}
        <ul>
          {#each reached as each (each.address)}<li>
              <Mark mark={each.answers ? 'done' : 'fault'} size={15} /> <b>{each.role}</b>
              <span class="mono">{each.address}</span>
              {each.sentence}
            </li>{/each}
        </ul>
        <p class="sub">{m.bench.reached(reached[0]!.from)}</p>
      {/if}
    {/if}
  {:else if member.state === 'SHUT'}
    <p>{member.prerequisite ? m.bench.prerequisite(member.prerequisite) : m.bench.opening}</p>
  {:else if bench.byHand}
    <p>{m.bench.manual.before}</p>
    {#if !member.line}<p>{m.bench.manual.noLine}</p>{/if}
  {:else if member.state === 'BY_HAND' || !member.line}
    <p>{hasConsole ? m.bench.noLine : m.bench.noConsole}</p>
  {:else}
    <p>{m.bench.before}</p>
  {/if}
  {#if bench.runNote && bench.runState === 'CANCELLED'}<p class="sub">{bench.runNote}</p>{/if}
  <dl>
    {#if hasConsole}<dt>{m.bench.line}</dt>
      <dd class="mono">{member.line || '—'} · {member.settings}</dd>{/if}
    {#if bench.plug}<dt>{m.bench.plug}</dt>
      <dd>{bench.plug}</dd>{/if}
    {#if bench.bring.length}<dt>{m.bench.bring}</dt>
      <dd>{bench.bring.join(', ')}</dd>{/if}
    {#if bench.window}<dt>{m.bench.window}</dt>
      <dd>{m.bench.windowIs(atTime(bench.window.from), atTime(bench.window.to), bench.window.open)}</dd>{/if}
    {#if bench.position}<dt>{m.bench.where}</dt>
      <dd class="mono">{bench.position}</dd>{/if}
  </dl>
  {#if bench.servicePort && bench.runState !== 'DONE'}<ServicePort port={bench.servicePort} {unitId} />{/if}
  {#if session.mayWork && canPlug && serial()}
    <div class="cable">
      <B disabled={asking} onclick={() => void useBrowser()}>{m.bench.cable.use}</B>
      <p class="sub">{m.bench.cable.useText}</p>
    </div>
  {/if}
</section>

<style>
  .cable {
    margin-top: 18px;
    padding-top: 12px;
    border-top: 1px solid var(--line2);
  }
  .cable .sub {
    margin: 6px 0 0;
  }
  .say {
    display: flex;
    gap: 10px;
    align-items: center;
    border-radius: 0;
  }
  .before {
    flex: 1;
    padding: 14px 18px;
    min-width: 0;
  }
  .before .say {
    margin: 8px 0;
  }
  .before h2 {
    font-family: var(--font-mono);
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 10px 0 2px;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 3px 0;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 5px 16px;
    margin-top: 12px;
  }
  dt {
    color: var(--ink2);
  }
  dd {
    margin: 0;
  }
</style>
