<script lang="ts">
  import { text } from '../../lib/address';
  import type { ProposalLine, RibbonView } from '../../lib/types';
  import { m } from '../../messages';
  import { choose } from '../../routes';
  import { blocks, pieces, rows, type Block } from './ribbon';

  /** A network drawn as rows of 32 addresses, and every run in it as a run. */
  let { ribbon, fit, onstart }: { ribbon: RibbonView; fit: ProposalLine[]; onstart: (address: string) => void } = $props();
  const drawn = $derived(rows(ribbon.prefix));
  const all = $derived(blocks(ribbon, fit));
  const kinds = ['proven', 'planned', 'fit', 'kept', 'dhcp', 'other'] as const;

  function title(block: Block): string {
    return `${text(block.first)}${block.last > block.first ? ' – ' + text(block.last) : ''} ${block.name}`;
  }
</script>

<div class="sheet ribbon">
  {#each drawn as first (first)}
    <div class="row">
      <div class="o mono">.{first % 256}</div>
      <div class="strip">
        {#each { length: 32 }, i (i)}
          {@const address = first + i}
          <button type="button" class="cell mono" tabindex="-1" aria-label={text(address)} title={text(address)} onclick={() => onstart(text(address))}>{address % 8 === 0 ? address % 256 : ''}</button>
        {/each}
        {#each pieces(all, first) as piece (piece.block.kind + piece.from)}
          <!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events -->
          <div
            class="blk {piece.block.kind}"
            class:narrow={piece.width < 3}
            style="left:calc({(piece.at / 32) * 100}% + 1px);width:calc({(piece.width / 32) * 100}% - 2px)"
            title={title(piece.block)}
            onclick={() => piece.block.unitId && choose(piece.block.unitId)}
          >
            {piece.width < 4 ? piece.block.short : piece.block.name}
          </div>
        {/each}
      </div>
    </div>
  {/each}
</div>
<div class="leg">
  {#each kinds as kind (kind)}<span><i class="blk {kind}"></i>{m.allocate.legend[kind]}</span>{/each}
</div>

<style>
  .ribbon { padding: 8px 12px 8px 4px; overflow-x: auto; }
  .row { display: flex; align-items: center; height: 40px; min-width: 620px; }
  .o { width: 46px; text-align: right; padding-right: 9px; color: var(--ink2); }
  .strip { position: relative; flex: 1; height: 33px; background: var(--line2); border-radius: 3px; display: grid; grid-template-columns: repeat(32, 1fr); gap: 1px; padding: 1px; }
  .cell { background: var(--sheet); border-radius: 2px; font-size: 10.5px; color: var(--ink2); display: flex; align-items: flex-end; justify-content: center; padding: 0 0 1px; min-width: 0; }
  .cell:hover { background: var(--lamp2); }
  .blk { border: 1.5px solid; border-radius: 4px; }
  .strip .blk { position: absolute; top: 2px; bottom: 2px; padding: 0 5px; font: 600 11px/26px var(--font-sans); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
  .strip .narrow { padding: 0 1px; text-align: center; font-size: 10px; text-overflow: clip; }
  .proven { background: var(--proof2); border-color: var(--proof); color: var(--proof-ink); }
  .planned { background: var(--sheet); border-color: var(--ink2); color: var(--ink); }
  .other { background: var(--line2); border-color: var(--ink3); color: var(--ink2); }
  .fit { background: var(--lamp2); border-color: var(--lamp-ink); border-style: dashed; color: var(--lamp-ink); }
  .kept { background: repeating-linear-gradient(135deg, var(--hatch1) 0 5px, var(--hatch2) 5px 10px); border-color: var(--rung-skip); color: var(--ink2); }
  .dhcp { background: repeating-linear-gradient(90deg, var(--wait2) 0 3px, var(--sheet) 3px 7px); border-color: var(--wait); color: var(--wait); }
  .leg { display: flex; gap: 14px; font-size: 12.5px; color: var(--ink2); margin-top: 8px; flex-wrap: wrap; }
  .leg i { display: inline-block; width: 22px; height: 13px; vertical-align: -2px; margin-right: 5px; }
</style>
