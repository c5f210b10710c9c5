<script lang="ts">
  import { tick } from 'svelte';
  import type { CellText, FactsReport, KindBrief, SheetRow } from '../../lib/types';
  import { m } from '../../messages';
  import {
    area,
    asks,
    byKind,
    columns,
    copied,
    filled,
    filledDown,
    keyOf,
    keyOfKind,
    look,
    pasted,
    shown,
  } from './sheet';

  /** The facts of one kind as a grid: move with the arrow keys, type, paste, fill down, undo. */
  let {
    name,
    rows,
    kinds,
    all,
    chosen,
    editable,
    onset,
    onundo,
    onchoose,
    onbeyond,
  }: {
    /** Tells its cells from those of other grids on the page. */
    name: string;
    rows: SheetRow[];
    kinds: KindBrief[];
    all: boolean;
    chosen: number | null;
    editable: boolean;
    onset: (cells: CellText[]) => Promise<FactsReport | null>;
    onundo: () => void;
    onchoose: (unit: number) => void;
    /** An arrow key leads out of the grid, up (-1) or down (1). */
    onbeyond: (by: number) => void;
  } = $props();

  const HEIGHT = 30;
  const MANY = 120;
  const asked = $derived(byKind(kinds));
  const cols = $derived(columns(rows, asked, all));
  const titles = $derived(new Map(kinds.map((kind) => [keyOfKind(kind), kind.title])));
  let at = $state({ row: 0, col: 0 });
  let from = $state({ row: 0, col: 0 });
  let active = $state(false);
  let editing = $state(false);
  let text = $state('');
  let wrong = $state<Record<string, { value: string; reason: string }>>({});
  let scrolled = $state(0);
  let seen = $state(600);
  let box = $state<HTMLElement>();
  let input = $state<HTMLInputElement>();

  /** Takes the focus, at the first row or the last. */
  export function enter(last: boolean): void {
    box?.querySelector<HTMLElement>('[role=grid]')?.focus();
    move(last ? rows.length - 1 : 0, at.col);
  }

  const marked = $derived(area(at, from));
  const windowed = $derived(rows.length > MANY);
  const start = $derived(windowed ? Math.max(0, Math.floor(scrolled / HEIGHT) - 10) : 0);
  const end = $derived(windowed ? Math.min(rows.length, start + Math.ceil(seen / HEIGHT) + 20) : rows.length);
  const current = $derived(rows[at.row]);
  const column = $derived(cols[at.col]);
  const fact = $derived(current && column ? asks(asked, current, column.name) : undefined);
  const key = (row: SheetRow, name: string) => `${row.unitId}/${row.member}/${name}`;
  const fault = $derived(current && column ? wrong[key(current, column.name)] : undefined);

  function move(row: number, col: number, extend = false): void {
    at = { row: Math.max(0, Math.min(rows.length - 1, row)), col: Math.max(0, Math.min(cols.length - 1, col)) };
    if (!extend) from = at;
    if (current) onchoose(current.unitId);
    void tick().then(() => {
      if (windowed && box) {
        const top = at.row * HEIGHT;
        if (top < box.scrollTop) box.scrollTop = top;
        else if (top > box.scrollTop + seen - 3 * HEIGHT) box.scrollTop = top - seen + 3 * HEIGHT;
      }
      document
        .getElementById(`fact-${name}-${at.row}-${at.col}`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    });
  }

  async function edit(first?: string): Promise<void> {
    if (!editable || !current || !column || look(asked, current, column.name) === 'never') return;
    text =
      first ??
      wrong[key(current, column.name)]?.value ??
      (fact?.secret ? '' : (current.cells[column.name]?.value ?? ''));
    editing = true;
    await tick();
    input?.focus();
    if (first === undefined) input?.select();
  }

  async function set(cells: CellText[]): Promise<void> {
    if (cells.length === 0) return;
    const report = await onset(cells);
    const faults = { ...wrong };
    for (const cell of cells) {
      for (const row of rows)
        if (row.unitId === cell.unitId && (cell.member === '' || row.member === cell.member))
          delete faults[key(row, cell.name)];
    }
    for (const bad of report?.faults ?? []) {
      const row = rows.find((each) => each.unitId === bad.unitId && (bad.member === '' || each.member === bad.member));
      if (row) faults[key(row, bad.name)] = { value: bad.value, reason: bad.reason };
    }
    wrong = faults;
  }

  async function leave(keep: boolean, rowBy = 0, colBy = 0): Promise<void> {
    if (!editing) return;
    editing = false;
    const cells = keep ? filled(rows, cols, asked, area(at, at), [[text]]) : [];
    box?.querySelector<HTMLElement>('[role=grid]')?.focus();
    if (rowBy || colBy) move(at.row + rowBy, at.col + colBy);
    await set(cells);
  }

  function typed(event: KeyboardEvent): void {
    if (event.key === 'Enter') void leave(true, event.shiftKey ? -1 : 1);
    else if (event.key === 'Tab') void leave(true, 0, event.shiftKey ? -1 : 1);
    else if (event.key === 'Escape') void leave(false);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  const steps: Record<string, [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
    PageUp: [-15, 0],
    PageDown: [15, 0],
  };

  function walked(event: KeyboardEvent): void {
    if (editing) return;
    const step = steps[event.key];
    const command = event.ctrlKey || event.metaKey;
    if (step && !event.shiftKey && Math.abs(step[0]) === 1 && (at.row + step[0] < 0 || at.row + step[0] >= rows.length))
      onbeyond(step[0]);
    else if (step) move(at.row + step[0], at.col + step[1], event.shiftKey);
    else if (event.key === 'Home') move(command ? 0 : at.row, 0, event.shiftKey);
    else if (event.key === 'End') move(command ? rows.length - 1 : at.row, cols.length - 1, event.shiftKey);
    else if (event.key === 'Enter' || event.key === 'F2') void edit();
    else if (event.key === 'Escape') from = at;
    else if (event.key === 'Delete' || event.key === 'Backspace')
      void (editable && set(filled(rows, cols, asked, marked, [['']])));
    else if (command && event.key === 'd') void (editable && set(filledDown(rows, cols, asked, marked)));
    else if (command && event.key === 'z') onundo();
    else if (command && event.key === 'a') {
      from = { row: 0, col: 0 };
      at = { row: rows.length - 1, col: cols.length - 1 };
    } else if (!command && !event.altKey && event.key.length === 1 && event.key !== '?' && event.key !== '/')
      void edit(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  function paste(event: ClipboardEvent): void {
    if (editing || !editable) return;
    const values = pasted(event.clipboardData?.getData('text') ?? '');
    event.preventDefault();
    void set(filled(rows, cols, asked, marked, values));
  }

  function copy(event: ClipboardEvent): void {
    if (editing) return;
    event.clipboardData?.setData('text/plain', copied(rows, cols, marked));
    event.preventDefault();
  }
</script>

<div
  class="sheet box"
  onfocusin={() => (active = true)}
  onfocusout={() => (active = false)}
  class:windowed
  bind:this={box}
  bind:clientHeight={seen}
  onscroll={(event) => (scrolled = event.currentTarget.scrollTop)}
>
  <table
    class="tbl cells"
    role="grid"
    tabindex="0"
    aria-label="{m.prepare.facts}: {titles.get(rows[0] ? keyOf(rows[0]) : '') ?? name}"
    aria-rowcount={rows.length}
    aria-activedescendant="fact-{name}-{at.row}-{at.col}"
    onkeydown={walked}
    onpaste={paste}
    oncopy={copy}
  >
    <thead>
      <tr>
        <th class="unit">{m.prepare.cols.unit}</th>
        {#each cols as col (col.name)}<th>{col.title}</th>{/each}
      </tr>
    </thead>
    <tbody>
      {#if start > 0}<tr style="height:{start * HEIGHT}px" aria-hidden="true"></tr>{/if}
      {#each rows.slice(start, end) as row, i (row.unitId + row.member)}
        {@const r = start + i}
        <tr class:on={row.unitId === chosen} class:next={row.first} aria-rowindex={r + 1}>
          <th scope="row" class="unit"
            ><b class="mono">{row.first ? row.unit : ''}</b> <span class="sub">{row.member}</span></th
          >
          {#each cols as col, c (col.name)}
            {@const state = look(asked, row, col.name)}
            {@const bad = wrong[key(row, col.name)]}
            {@const here = r === at.row && c === at.col}
            <td
              id="fact-{name}-{r}-{c}"
              role="gridcell"
              aria-selected={r >= marked.top && r <= marked.bottom && c >= marked.left && c <= marked.right}
              aria-invalid={bad ? 'true' : undefined}
              class={state}
              class:bad
              class:here
              class:mono={state === 'own'}
              class:marked={r >= marked.top &&
                r <= marked.bottom &&
                c >= marked.left &&
                c <= marked.right &&
                (marked.top !== marked.bottom || marked.left !== marked.right)}
              title={bad?.reason ?? row.cells[col.name]?.source}
              onclick={(event) => move(r, c, event.shiftKey)}
              ondblclick={() => void edit()}
            >
              {#if here && editing}
                <input
                  bind:this={input}
                  bind:value={text}
                  onkeydown={typed}
                  onblur={() => void leave(true)}
                  aria-label="{row.unit} {col.title}"
                  type={fact?.secret ? 'password' : 'text'}
                  spellcheck="false"
                  autocomplete="off"
                  list={fact && fact.choices.length > 1 ? `choices-${name}` : undefined}
                />
              {:else if bad}{bad.value}
              {:else if state === 'missing'}{m.prepare.findOut}
              {:else if state !== 'never'}{shown(row.cells[col.name])}{/if}
            </td>
          {/each}
        </tr>
      {:else}
        <tr><td colspan={cols.length + 1} class="none">{m.prepare.noUnits}</td></tr>
      {/each}
      {#if end < rows.length}<tr style="height:{(rows.length - end) * HEIGHT}px" aria-hidden="true"></tr>{/if}
    </tbody>
  </table>
</div>
{#if fact && fact.choices.length > 1}<datalist id="choices-{name}"
    >{#each fact.choices as choice (choice)}<option value={choice}></option>{/each}</datalist
  >{/if}
<p class="sub foot" aria-live="polite">
  {#if (active || fault) && current && column}
    <b>{current.unit} {current.member} {column.title}</b>:
    {#if fault}<span class="bad">{fault.reason}</span>
    {:else if !fact || look(asked, current, column.name) === 'never'}{m.prepare.never}
    {:else}{[
        fact.asked,
        fact.find,
        fact.permanent ? m.prepare.permanent : '',
        `${m.prepare.such} ${fact.choices.length > 1 ? fact.choices.join(', ') : fact.example}`,
      ]
        .filter(Boolean)
        .join('; ')}{/if}
  {/if}
</p>

<style>
  .box {
    overflow-x: auto;
  }
  .windowed {
    max-height: calc(100vh - 330px);
    min-height: 240px;
    overflow: auto;
  }
  .cells {
    border-collapse: separate;
    border-spacing: 0;
  }
  .cells:focus-visible {
    outline: none;
  }
  .cells td,
  .cells th {
    border-left: 1px solid var(--line2);
    height: 30px;
    border-top: 1px solid var(--line2);
    white-space: nowrap;
    padding: 0 8px;
    max-width: 260px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .cells thead th {
    position: sticky;
    top: 0;
    background: var(--sheet);
    z-index: 2;
    border-top: 0;
  }
  .cells .unit {
    position: sticky;
    left: 0;
    background: var(--sheet);
    z-index: 1;
    border-left: 0;
    text-align: left;
    font-size: 13px;
    min-width: 190px;
    color: var(--ink);
  }
  .cells thead .unit {
    z-index: 3;
    color: var(--ink2);
  }
  tr.next > * {
    border-top-color: var(--line);
  }
  .cells tr.on > .unit {
    background: var(--lamp2);
  }
  .cells td.never {
    background: repeating-linear-gradient(135deg, var(--hatch1) 0 4px, var(--hatch2) 4px 8px);
  }
  .cells td.missing {
    background: var(--fault2);
    color: var(--fault);
    font-size: 12.5px;
  }
  .given {
    color: var(--ink2);
  }
  .cells td.bad {
    background: var(--fault2);
    color: var(--fault);
    text-decoration: underline wavy;
    text-underline-offset: 3px;
  }
  td.marked {
    box-shadow: inset 0 0 0 99px rgb(227 154 11 / 14%);
  }
  .cells:focus-within td.here {
    box-shadow: inset 0 0 0 2px var(--lamp-ink);
  }
  td.here {
    box-shadow: inset 0 0 0 1px var(--ink3);
  }
  input {
    width: 100%;
    min-width: 120px;
    height: 26px;
    border: 0;
    padding: 0;
    background: var(--sheet);
    color: var(--ink);
    font: 13px var(--font-mono);
    outline: none;
  }
  .none {
    padding: 14px;
  }
  .foot {
    margin: 6px 0 0;
    min-height: 20px;
  }
  /* on paper the facts stand unit by unit: a table of nine kinds is wider than any sheet */
  @media print {
    .box,
    .foot {
      display: none;
    }
  }
</style>
