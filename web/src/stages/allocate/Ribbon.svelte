<script lang="ts">
  import { number, text } from '../../lib/address';
  import type { Growth, ProposalLine, RibbonView } from '../../lib/types';
  import { m } from '../../messages';
  import { choose } from '../../routes';
  import { blocks, pieces, rows, type Block } from './ribbon';

  /**
   * A network drawn as rows of 32 addresses, and every run in it as a run. Walked with the arrow keys; Enter begins the
   * fit at an address, and Shift with the arrows, or dragging, marks addresses to be kept.
   */
  let {
    ribbon,
    window: shown,
    fit,
    growth,
    onstart,
    onkeep,
  }: {
    ribbon: RibbonView;
    window: string;
    fit: ProposalLine[];
    growth: Growth[];
    onstart: (address: string) => void;
    onkeep: (first: string, last: string) => void;
  } = $props();
  const drawn = $derived(rows(shown));
  const all = $derived(blocks(ribbon, fit, growth));
  const kinds = ['proven', 'planned', 'fit', 'growth', 'kept', 'dhcp', 'cooling', 'unknownDevice', 'other'] as const;
  const lowest = $derived(drawn[0] ?? 0);
  const highest = $derived((drawn.at(-1) ?? 0) + 31);
  let at = $state<number | null>(null);
  let from = $state<number | null>(null);
  let dragging = $state(false);
  const first = $derived(at === null || from === null ? null : Math.min(at, from));
  const last = $derived(at === null || from === null ? null : Math.max(at, from));
  const inHand = $derived(at === null ? undefined : all.findLast((block) => block.first <= at! && at! <= block.last));

  function title(block: Block): string {
    return `${text(block.first)}${block.last > block.first ? ' – ' + text(block.last) : ''} ${block.name}`;
  }

  function move(to: number, extend: boolean): void {
    at = Math.max(lowest, Math.min(highest, to));
    if (!extend) from = at;
    document.getElementById(`address-${at}`)?.focus();
  }

  const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -32, ArrowDown: 32 };

  function walked(event: KeyboardEvent): void {
    const here = at ?? lowest;
    const step = steps[event.key];
    if (step) move(here + step, event.shiftKey);
    else if (event.key === 'Home') move(here - ((here - lowest) % 32), event.shiftKey);
    else if (event.key === 'End') move(here - ((here - lowest) % 32) + 31, event.shiftKey);
    else if (event.key === 'Enter' || event.key === ' ') onstart(text(here));
    else if (event.key === 'r' && first !== null && last !== null) onkeep(text(first), text(last));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  function press(event: PointerEvent, address: number): void {
    from = at = address;
    dragging = true;
    (event.currentTarget as HTMLElement).releasePointerCapture?.(event.pointerId);
  }

  function lift(): void {
    if (!dragging) return;
    dragging = false;
    if (first === null || last === null) return;
    if (first === last) onstart(text(first));
    else onkeep(text(first), text(last));
  }

  const marked = (address: number) =>
    first !== null && last !== null && first !== last && address >= first && address <= last;
  const stop = $derived(at ?? number(shown.split('/')[0]!));
</script>

<svelte:window onpointerup={lift} />
<div class="sheet ribbon" role="grid" aria-label={m.allocate.title} tabindex="-1" onkeydown={walked}>
  {#each drawn as start (start)}
    <div class="row" role="row">
      <div class="o mono" role="rowheader">.{start % 256}</div>
      <div class="strip" role="presentation">
        {#each { length: 32 }, i (i)}
          {@const address = start + i}
          <button
            type="button"
            id="address-{address}"
            class="cell mono"
            class:marked={marked(address)}
            role="gridcell"
            tabindex={address === stop ? 0 : -1}
            aria-label={text(address)}
            onpointerdown={(event) => press(event, address)}
            onpointerenter={() => dragging && (at = address)}
            onfocus={() => {
              if (!dragging && at !== address) from = at = address;
            }}>{address % 8 === 0 ? address % 256 : ''}</button
          >
        {/each}
        {#each pieces(all, start) as piece (piece.block.kind + piece.from + (piece.block.unitId ?? ''))}
          <!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events -->
          <div
            class="blk {piece.block.kind}"
            class:narrow={piece.width < 2}
            class:through={piece.block.kind === 'fit' || piece.block.kind === 'growth'}
            style="left:calc({(piece.at / 32) * 100}% + 1px);width:calc({(piece.width / 32) * 100}% - 2px)"
            title={title(piece.block)}
            onclick={() => piece.block.unitId && choose(piece.block.unitId)}
          >
            {piece.width < 5 && piece.block.short ? piece.block.short : piece.block.name}
          </div>
        {/each}
      </div>
    </div>
  {/each}
</div>
<p class="sub hand" aria-live="polite">
  {#if at !== null}<span class="mono"
      >{first !== last && first !== null && last !== null ? `${text(first)} – ${text(last)}` : text(at)}</span
    >
    {inHand ? inHand.name : m.allocate.free}{/if}
</p>
<div class="leg">
  {#each kinds as kind (kind)}<span><i class="blk {kind}"></i>{m.allocate.legend[kind]}</span>{/each}
</div>

<style>
  .ribbon {
    padding: 8px 12px 8px 4px;
    overflow-x: auto;
  }
  .row {
    display: flex;
    align-items: center;
    height: 40px;
    min-width: 620px;
  }
  .o {
    width: 46px;
    text-align: right;
    padding-right: 9px;
    color: var(--ink2);
  }
  .strip {
    position: relative;
    flex: 1;
    height: 33px;
    background: var(--line2);
    border-radius: 3px;
    display: grid;
    grid-template-columns: repeat(32, 1fr);
    gap: 1px;
    padding: 1px;
    touch-action: none;
  }
  .cell {
    background: var(--sheet);
    border-radius: 2px;
    font-size: 10.5px;
    color: var(--ink2);
    display: flex;
    align-items: flex-end;
    justify-content: center;
    padding: 0 0 1px;
    min-width: 0;
    user-select: none;
  }
  .cell:hover,
  .cell.marked {
    background: var(--lamp2);
  }
  .cell:focus-visible {
    z-index: 3;
    outline-offset: 0;
  }
  .blk {
    border: 1.5px solid;
    border-radius: 4px;
  }
  .strip .blk {
    position: absolute;
    top: 2px;
    bottom: 2px;
    padding: 0 5px;
    font: 600 11px/26px var(--font-sans);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .strip .narrow {
    padding: 0 1px;
    text-align: center;
    font-size: 10px;
    text-overflow: clip;
  }
  .strip .through {
    pointer-events: none;
  }
  .proven {
    background: var(--proof2);
    border-color: var(--proof);
    color: var(--proof-ink);
  }
  .planned {
    background: var(--sheet);
    border-color: var(--ink2);
    color: var(--ink);
  }
  .other {
    background: var(--line2);
    border-color: var(--ink3);
    color: var(--ink2);
  }
  .fit {
    background: var(--lamp2);
    border-color: var(--lamp-ink);
    border-style: dashed;
    color: var(--lamp-ink);
  }
  .growth {
    background: var(--sheet);
    border-color: var(--ink3);
    border-style: dotted;
    color: var(--ink2);
  }
  .cooling {
    background: var(--sheet);
    border-color: var(--ink3);
    border-style: dotted;
    color: var(--ink2);
  }
  .unknownDevice {
    background: var(--fault2);
    border-color: var(--fault);
    color: var(--fault);
  }
  .kept {
    background: repeating-linear-gradient(135deg, var(--hatch1) 0 5px, var(--hatch2) 5px 10px);
    border-color: var(--rung-skip);
    color: var(--ink2);
  }
  .dhcp {
    background: repeating-linear-gradient(90deg, var(--wait2) 0 3px, var(--sheet) 3px 7px);
    border-color: var(--wait);
    color: var(--wait);
  }
  .leg {
    display: flex;
    gap: 14px;
    font-size: 12.5px;
    color: var(--ink2);
    margin-top: 4px;
    flex-wrap: wrap;
  }
  .leg i {
    display: inline-block;
    width: 22px;
    height: 13px;
    vertical-align: -2px;
    margin-right: 5px;
  }
  .hand {
    margin: 5px 0 0;
    min-height: 18px;
  }
</style>
