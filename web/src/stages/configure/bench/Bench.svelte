<script lang="ts">
  import { api, Problem } from '../../../lib/api';
  import { notices } from '../../../lib/notices.svelte';
  import { live, lookAgain, shownAgain } from '../../../lib/query';
  import { session } from '../../../lib/session.svelte';
  import B from '../../../parts/B.svelte';
  import { m } from '../../../messages';
  import Before from './Before.svelte';
  import Compare from './Compare.svelte';
  import Foot from './Foot.svelte';
  import HandSheet from './HandSheet.svelte';
  import HoldBox from './HoldBox.svelte';
  import LargeValues from './LargeValues.svelte';
  import MachineLogs from './MachineLogs.svelte';
  import Override from './Override.svelte';
  import PageSheet from './PageSheet.svelte';
  import StepList from './StepList.svelte';
  import type { BenchView, LineStanding, Member, Mode } from './types';

  /** A unit at the bench: what each member asks and is answered, beside its line. */
  let { unitId, member, onmember }: { unitId: number; member: number; onmember: (index: number) => void } = $props();

  const COMPARE = -1;
  const bench = live<BenchView>(() => `/units/${unitId}/bench`);
  let standing = $state.raw<LineStanding | null>(null);
  let line = $state<{ typeValue: (name: string) => void }>();
  let busy = $state(false);
  let playing = $state(false);
  let large = $state(false);
  let gated = $state<{ path: string; body: Record<string, unknown>; sentence: string; title?: string } | null>(null);
  const members = $derived(bench.data?.members ?? []);
  const index = $derived(Math.min(member, members.length - 1));
  const now = $derived<Member | undefined>(members[Math.max(0, index)]);
  const begun = $derived(bench.data?.runState === 'RUNNING' || bench.data?.runState === 'WAITING');
  const onLine = $derived(
    begun &&
      now?.dialogueId !== null &&
      now !== undefined &&
      !now.atPages &&
      !['SHUT', 'BY_HAND', ''].includes(now.state),
  );
  const atPages = $derived(begun && now !== undefined && now.atPages);
  const worked = $derived(onLine || (atPages && now?.state !== 'BY_HAND'));
  const hold = $derived(standing ? standing.hold : (now?.hold ?? null));
  const mode = $derived<Mode>(standing?.mode || now?.mode || '');
  /** A person does the setup on an open line. */
  const manual = $derived(onLine && (standing?.state ?? now?.state) === 'MANUAL');
  const stopped = $derived((standing?.state ?? now?.state) === 'STOPPED');

  /** Sends what was decided; a prerequisite asks a lead for a reason, a change window asks everybody. */
  async function post(path: string, body: Record<string, unknown> = {}): Promise<void> {
    busy = true;
    try {
      await api.post(path, body);
      gated = null;
    } catch (error) {
      const members = error instanceof Problem ? error.members : {};
      const asks = members.reasonWanted === true || (members.prerequisite === true && session.me?.role === 'lead');
      if (error instanceof Problem && asks && !gated)
        gated = {
          path,
          body,
          sentence: error.detail,
          title: members.reasonWanted === true ? m.bench.windowTitle : m.bench.prerequisiteTitle,
        };
      else notices.fault(error);
    } finally {
      // a button that can be pressed again before what it did is shown is pressed twice
      await shownAgain();
      busy = false;
    }
  }

  function stood(is: LineStanding | null): void {
    standing = is;
  }

  const decide = (what: string, body: Record<string, unknown> = {}) =>
    void (now?.dialogueId && post(`/dialogues/${now.dialogueId}/${what}`, body));
  const begin = (way: Mode) => void post(`/units/${unitId}/console`, { mode: way });

  async function reveal(place: number, field: string): Promise<string | null> {
    try {
      return (
        await api.post<{ text: string }>(
          `/dialogues/${now?.dialogueId}/steps/${place}/password?field=${encodeURIComponent(field)}`,
        )
      ).text;
    } catch (error) {
      notices.fault(error);
      return null;
    }
  }

  async function runOn(): Promise<void> {
    if (!now?.dialogueId) return;
    await post(`/dialogues/${now.dialogueId}/mode`, { mode: 'run' });
    if (hold && hold.typed === '' && hold.why !== 'NEXT')
      await post(`/dialogues/${now.dialogueId}/decision`, { typed: '' });
  }

  let panel = $state<HTMLElement>();

  /** To what is to be decided, out of the terminal, which gives every plain key to the machine. */
  function leave(): void {
    (panel?.querySelector<HTMLElement>('.foot button:enabled') ?? panel)?.focus();
  }

  const enter = () => document.querySelector<HTMLElement>('.con textarea')?.focus();

  /** The tool's own keys on a live line are chords that no machine and no browser takes. */
  function chord(event: KeyboardEvent): void {
    if (!event.ctrlKey || !event.shiftKey || index === COMPARE) return;
    const moves = ({ ArrowUp: leave, ArrowDown: enter } as Record<string, () => void>)[event.code];
    const act =
      moves ??
      (begun && session.mayWork
        ? (
            {
              Enter: () => decide('decision', { typed: '' }),
              ArrowRight: () => void runOn(),
              KeyL: () => decide('mode', { mode: 'ask' }),
              KeyY: () => decide('mode', { mode: 'watch' }),
              Period: () => decide('stop'),
            } as Record<string, () => void>
          )[event.code]
        : undefined);
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:window onkeydowncapture={chord} />
{#if bench.data && now}
  <div class="two">
    <section
      class="sheet dlg"
      bind:this={panel}
      tabindex="-1"
      class:whole={index === COMPARE}
      aria-label={m.bench.dialogue(bench.data.name)}
    >
      <div class="tabs" role="tablist" aria-label={m.bench.members}>
        {#each members as each, i (each.label)}
          {#if members.length > 1 || each.label}<button
              type="button"
              role="tab"
              aria-selected={i === index}
              onclick={() => onmember(i)}>{each.label}</button
            >{/if}
        {/each}
        {#if members.length === 1 && !members[0]!.label}<button
            type="button"
            role="tab"
            class="mono as-is"
            aria-selected={true}>{bench.data.name}</button
          >{/if}
        {#if members.length > 1}<button
            type="button"
            role="tab"
            aria-selected={index === COMPARE}
            onclick={() => onmember(COMPARE)}>{m.bench.compare}</button
          >{/if}
        {#if begun && mode && !bench.data.byHand && index !== COMPARE && now.state !== 'BY_HAND'}<span class="mode"
            >{m.bench.answers} <b>{m.bench.modes[mode]}</b></span
          >{/if}
      </div>
      {#if index === COMPARE}
        <Compare {members} />
      {:else}
        {#if bench.data.byHand}
          <HandSheet
            member={now}
            onvalue={session.mayWork && manual ? (name: string) => line?.typeValue(name) : null}
          />
        {:else}<StepList
            member={now}
            standing={onLine ? standing : null}
            mayWork={session.mayWork}
            ontick={(place, done) => void post(`/dialogues/${now.dialogueId}/tick`, { place, done })}
            onreveal={reveal}
            oncompared={lookAgain}
          />{/if}
        {#if now.prerequisite}
          <div class="say wait">
            {m.bench.prerequisite(now.prerequisite)}
            {#if session.me?.role === 'lead'}<B
                disabled={busy}
                onclick={() =>
                  (gated = {
                    path: `/dialogues/${now.dialogueId}/override`,
                    body: {},
                    sentence: m.bench.prerequisite(now.prerequisite),
                  })}>{m.bench.override}</B
              >{/if}
          </div>
        {/if}
        {#if begun && hold && hold.why !== 'NEXT'}<HoldBox
            {hold}
            {busy}
            mayWork={session.mayWork}
            recover={bench.data.recover}
            ongo={(typed) => decide('decision', { typed })}
            onlog={bench.data.fetchesLog ? () => decide('log') : null}
          />{/if}
        {#if bench.data.logs.length > 0}<MachineLogs logs={bench.data.logs} />{/if}
        {#if session.mayWork}
          <Foot
            bench={bench.data}
            member={now}
            {begun}
            {stopped}
            {worked}
            {mode}
            {hold}
            {busy}
            ondecide={decide}
            onbegin={begin}
            onrun={() => void runOn()}
            onclose={() => void post(`/units/${unitId}/console/close`)}
            onplay={() => (playing = true)}
            onlarge={() => (large = true)}
          />
        {/if}
      {/if}
    </section>
    {#if onLine && index !== COMPARE}
      {#await import('./Console.svelte') then { default: Console }}
        {#key now.dialogueId}<Console bind:this={line} member={now} unit={bench.data.name} onstanding={stood} />{/key}
      {/await}
    {:else if index !== COMPARE && atPages}
      <PageSheet
        member={now}
        unit={bench.data.name}
        {unitId}
        servicePort={bench.data.servicePort}
        mayWork={session.mayWork}
        onreveal={reveal}
      />
    {:else if index !== COMPARE}
      <Before bench={bench.data} member={now} {unitId} />
    {/if}
  </div>
{/if}
{#if gated}
  {@const asked = gated}
  <Override
    title={asked.title}
    sentence={asked.sentence}
    {busy}
    ongo={(reason) => void post(asked.path, { ...asked.body, reason })}
    onclose={() => (gated = null)}
  />
{/if}
{#if large && now && bench.data}
  <LargeValues
    unit={bench.data.name}
    member={now}
    mayTick={session.mayWork}
    ontick={(place, done) => void post(`/dialogues/${now.dialogueId}/tick`, { place, done })}
    onreveal={reveal}
    onclose={() => (large = false)}
  />
{/if}
{#if playing && now?.dialogueId && bench.data}
  {#await import('./Playback.svelte') then { default: Playback }}<Playback
      dialogueId={now.dialogueId}
      title={m.bench.recordingOf(bench.data.name, now.label)}
      onclose={() => (playing = false)}
    />{/await}
{/if}

<style>
  /* what is left of the window: what to press, and Stop, are in sight however many lanes there are */
  .two {
    display: flex;
    gap: 12px;
    flex: 1 1 360px;
    min-height: 360px;
  }
  .dlg {
    width: 540px;
    flex: none;
    display: flex;
    flex-direction: column;
    overflow: hidden;
  }
  .dlg.whole {
    width: auto;
    flex: 1;
  }
  .tabs {
    display: flex;
    border-bottom: 1px solid var(--line);
    background: var(--group);
    align-items: center;
  }
  .tabs button {
    padding: 7px 14px;
    font-weight: 560;
    color: var(--ink2);
    border-top: 3px solid transparent;
  }
  .tabs button[aria-selected='true'] {
    background: var(--sheet);
    color: var(--ink);
    border-top-color: var(--lamp);
  }
  .tabs button:not(.as-is)::first-letter {
    text-transform: uppercase;
  }
  .mode {
    margin-left: auto;
    padding: 0 12px;
    font-size: 12.5px;
    color: var(--ink2);
    white-space: nowrap;
  }
  .say {
    margin: 0;
    border-radius: 0;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  @media (max-width: 1000px) {
    .two {
      flex-direction: column;
      flex: none;
      min-height: 0;
    }
    .dlg {
      width: auto;
      max-height: 560px;
    }
  }
  @media print {
    .two {
      display: block;
      min-height: 0;
    }
    .dlg {
      width: auto;
      overflow: visible;
    }
  }
</style>
