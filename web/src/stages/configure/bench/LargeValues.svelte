<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { usually } from '../../../lib/time';
  import { m } from '../../../messages';
  import B from '../../../parts/B.svelte';
  import Dialog from '../../../parts/Dialog.svelte';
  import Mark from '../../../parts/Mark.svelte';
  import { firstOpen, largeValues } from './large';
  import type { Member } from './types';

  /** The value sheet for a machine with a screen and a keyboard: one value in large type, the next with one press. */
  let {
    unit,
    member,
    mayTick,
    ontick,
    onreveal,
    onclose,
  }: {
    unit: string;
    member: Member;
    mayTick: boolean;
    ontick: (place: number, done: boolean) => void;
    onreveal: (place: number, field: string) => Promise<string | null>;
    onclose: () => void;
  } = $props();
  const t = m.bench.large;

  /** How long a password stays in sight. */
  const SECONDS = 10;
  /** From here on a value is set smaller, so that it stays on few rows. */
  const LONG = 20;
  const values = $derived(largeValues(member.steps));
  let at = $state(untrack(() => firstOpen(largeValues(member.steps))));
  const now = $derived(values[Math.min(at, values.length - 1)]);
  const waits = $derived(member.steps.find((step) => step.place === now?.place && step.sort === 'waits'));
  /** The machine does not say which one it is: that is compared in the list, before anything is ticked. */
  const compares = $derived(
    member.compare !== null &&
      member.compare.at === null &&
      member.steps.some((step) => step.place === now?.place && step.marks.includes('COMPARES')),
  );
  let revealed = $state.raw<{ at: number; text: string } | null>(null);
  const shown = $derived(revealed?.at === at ? revealed.text : now?.value);

  function go(to: number): void {
    at = Math.max(0, Math.min(values.length - 1, to));
    revealed = null;
  }

  function next(): void {
    if (!now) return;
    if (now.last && !now.done && mayTick) ontick(now.place, true);
    if (at === values.length - 1) onclose();
    else go(at + 1);
  }

  async function reveal(): Promise<void> {
    if (!now) return;
    const text = await onreveal(now.place, now.field);
    if (text === null) return;
    const is = { at, text };
    revealed = is;
    setTimeout(() => revealed === is && (revealed = null), SECONDS * 1000);
  }

  /** A dialog would begin at what closes it. */
  function forward(button: HTMLElement): void {
    void tick().then(() => button.querySelector('button')?.focus());
  }

  function keys(event: KeyboardEvent): void {
    const to = ({ ArrowLeft: at - 1, ArrowRight: at + 1 } as Record<string, number>)[event.key];
    if (to === undefined) return;
    event.preventDefault();
    go(to);
  }
</script>

<svelte:window onkeydown={keys} />
<Dialog title="{unit} {member.label}" whole {onclose}>
  {#if now}
    <div class="one" aria-live="polite">
      <p class="sub">
        {#if now.done}<Mark mark="done" size={16} />{/if}
        {t.of(at + 1, values.length)}{#if now.field}, {now.title}{/if}
      </p>
      <p class="label">{now.label}</p>
      <p class="value mono" class:long={(shown ?? '').length > LONG}>
        {waits ? t.about(usually(waits.about)) : shown || m.bench.enter}
      </p>
      {#if now.hidden && mayTick && revealed?.at !== at}<B onclick={() => void reveal()}>{t.show}</B>{/if}
      {#if compares}<p class="say wait">{t.compareFirst}</p>{/if}
    </div>
    <div class="press">
      <B disabled={at === 0} onclick={() => go(at - 1)}>{t.back}</B>
      <span class="next" {@attach forward}
        ><B look="go" disabled={compares} onclick={next}
          >{now.last && !now.done && mayTick ? t.doneNext : at === values.length - 1 ? t.end : t.next}</B
        ></span
      >
    </div>
  {/if}
</Dialog>

<style>
  .one {
    display: grid;
    gap: 14px;
    align-content: center;
    justify-items: start;
    flex: 1;
  }
  p {
    margin: 0;
  }
  .label {
    font-size: clamp(20px, 5vw, 34px);
  }
  .value {
    font-size: clamp(30px, 9.5vw, 96px);
    line-height: 1.15;
    overflow-wrap: anywhere;
    white-space: pre-wrap;
  }
  .value.long {
    font-size: clamp(24px, 6vw, 52px);
  }
  .press {
    display: flex;
    gap: 12px;
    padding-top: 14px;
  }
  .next {
    flex: 1;
    display: grid;
  }
  .press :global(button.lych) {
    padding: 14px 22px;
    font-size: 18px;
    justify-content: center;
  }
</style>
