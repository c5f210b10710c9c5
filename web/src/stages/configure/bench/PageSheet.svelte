<script lang="ts">
  import { atTime, inFull } from '../../../lib/time';
  import Mark from '../../../parts/Mark.svelte';
  import { m } from '../../../messages';
  import Fields from './Fields.svelte';
  import ServicePort from './ServicePort.svelte';
  import type { BenchView, Member } from './types';

  /** The pages of a member: what each came with, and what is entered; the one that is worked at is open. */
  let {
    member,
    unit,
    unitId,
    servicePort,
    mayWork,
    onreveal,
  }: {
    member: Member;
    unit: string;
    unitId: number;
    servicePort: BenchView['servicePort'];
    mayWork: boolean;
    onreveal: (place: number, field: string) => Promise<string | null>;
  } = $props();

  const pages = $derived(member.steps.filter((step) => step.sort === 'page' && !step.marks.includes('FIRST')));
  const now = $derived(
    member.hold && member.hold.step >= 0
      ? member.hold.step
      : (pages.find((step) => step.progress === 'SENT' || step.progress === 'OPEN')?.place ?? -1),
  );
  const done = $derived(pages.filter((step) => step.progress === 'DONE').length);
  const controller = $derived(pages.some((step) => step.marks.includes('CONTROLLER')));
  const title = $derived((controller ? m.bench.networkOf : m.bench.pagesOf)(unit, member.label));
  const driven = $derived(member.state !== 'BY_HAND');
</script>

<section class="sheet pages" aria-label={title}>
  <h2>{title} <span class="sub">{m.bench.pagesDone(done, pages.length)}</span></h2>
  <p class="sub">
    {controller
      ? driven
        ? m.bench.controllerDriven
        : m.bench.controllerByHand
      : driven
        ? m.bench.pagesDriven
        : member.fillsPages
          ? m.bench.pagesByHandMayDrive
          : m.bench.pagesByHand}
  </p>
  {#if servicePort && done < pages.length}<ServicePort port={servicePort} {unitId} />{/if}
  {#if member.note}<p class="say wait">{member.note}</p>{/if}
  {#each pages as page (page.place)}
    <details open={page.place === now || page.progress === 'DONE'} class:cur={page.place === now}>
      <summary>
        <Mark
          mark={page.progress === 'DONE'
            ? 'done'
            : page.place !== now
              ? 'set'
              : member.state === 'WAITING'
                ? 'wait'
                : member.hold && ['PAGE', 'UNREACHED', 'WRONG_MACHINE'].includes(member.hold.why)
                  ? 'fault'
                  : 'work'}
          size={16}
        />
        <b>{page.title}</b>
        {#each page.marks.filter((mark) => mark === 'PERMANENT' || mark === 'CONSENT') as mark (mark)}<span class="mk"
            >{m.bench.marks[mark]}</span
          >{/each}
        {#if page.progress === 'DONE' && page.at}<span class="sub mono" title={inFull(page.at)}>{atTime(page.at)}</span
          >{/if}
      </summary>
      {#if page.evidence}<p class="came">{page.evidence}</p>{/if}
      {#if Object.keys(page.told).length}<div class="in"><Fields fields={page.told} onreveal={null} /></div>{/if}
      {#if page.progress !== 'DONE'}
        {#if page.answer}<p class="sub">{m.bench.opensAt} <span class="mono">{page.answer}</span></p>{/if}
        <div class="in">
          <Fields
            fields={page.fields}
            onreveal={mayWork && member.dialogueId !== null ? (label: string) => onreveal(page.place, label) : null}
          />
        </div>
      {/if}
    </details>
  {/each}
</section>

<style>
  .pages {
    flex: 1;
    padding: 12px 16px;
    min-width: 0;
    overflow-y: auto;
  }
  h2 {
    display: flex;
    align-items: baseline;
    gap: 10px;
  }
  details {
    border-top: 1px solid var(--line2);
    padding: 5px 0;
  }
  .cur {
    background: var(--lamp2);
    border-left: 4px solid var(--lamp);
    padding-left: 8px;
    margin-left: -12px;
  }
  summary {
    display: flex;
    gap: 8px;
    align-items: center;
    cursor: pointer;
  }
  .came {
    margin: 3px 0 3px 24px;
    font-size: 13px;
    color: var(--ink2);
  }
  .mk {
    font-size: 11px;
    border: 1px solid var(--fault);
    color: var(--fault);
    border-radius: 3px;
    padding: 0 5px;
  }
  .in {
    margin-left: 24px;
  }
</style>
