<script lang="ts">
  import { onMount, tick } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { session } from '../../lib/session.svelte';
  import { notices } from '../../lib/notices.svelte';
  import { live } from '../../lib/query';
  import type { BoardView, Row } from '../../lib/types';
  import ManyRows from '../../parts/ManyRows.svelte';
  import Todos from '../../parts/Todos.svelte';
  import { m } from '../../messages';
  import { bringUpId, choose, chosenUnit, go, path, route } from '../../routes';
  import BoardRow from './BoardRow.svelte';

  const board = live<BoardView>(() => `/bring-ups/${bringUpId()}/board`);
  /** Ready means that services answer, so they are asked when somebody looks. */
  onMount(() => {
    if (session.mayWork)
      void api.post(`/bring-ups/${bringUpId()}/measure`).catch((error: unknown) => notices.fault(error));
  });
  /** A phone shows each unit as a card. */
  const narrow = new MediaQuery('max-width: 700px');
  const WIDTHS = ['21%', '14%', '15%', '22%', '16%', '12%'];
  const only = $derived((route.search as Record<string, unknown>).only === 'faults');
  const isFault = (row: Row) => [row.configure, row.prove].some((cell) => cell.mark === 'fault');
  const shown = $derived((board.data?.rows ?? []).filter((row) => !only || isFault(row)));
  const racks = $derived(
    [...new Set(shown.map((row) => row.rack))].map((rack) => ({
      rack,
      rows: shown.filter((row) => row.rack === rack),
    })),
  );
  const up = (rows: Row[]) => rows.filter((row) => row.prove.mark === 'lit').length;

  type Line = { rack: string | null; rows: Row[]; row: null } | { row: Row };
  const lines = $derived<Line[]>(
    racks.flatMap(({ rack, rows }) => [{ rack, rows, row: null }, ...rows.map((row) => ({ row }))]),
  );
  let table = $state<{ show: (index: number) => void }>();

  function move(by: number): void {
    const order = racks.flatMap((group) => group.rows);
    if (order.length === 0) return;
    const at = order.findIndex((row) => row.unitId === chosenUnit());
    const next = order[at < 0 ? 0 : Math.max(0, Math.min(order.length - 1, at + by))]!;
    choose(next.unitId);
    table?.show(lines.findIndex((line) => line.row === next));
    void tick().then(() => document.getElementById(`unit-${next.unitId}`)?.scrollIntoView({ block: 'nearest' }));
  }

  /** Opens a unit at the stage where it stands. */
  function open(row: Row | undefined): void {
    if (!row) return;
    const stage =
      row.prepare.mark !== 'done'
        ? 'prepare'
        : row.allocate.mark !== 'done'
          ? 'allocate'
          : row.configure.mark !== 'done'
            ? 'configure'
            : 'prove';
    go(path(bringUpId(), stage, row.unitId));
  }

  const keys = onKeys({
    j: () => move(1),
    k: () => move(-1),
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    Enter: () => open(shown.find((row) => row.unitId === chosenUnit())),
    Escape: () => choose(null),
  });
</script>

<svelte:window onkeydown={keys} />
<div class="page">
  <div class="main">
    <div class="head">
      <h1 class="visually-hidden">{m.stages.board}</h1>
      <h2>{m.board.title}</h2>
      <span class="sub"
        >{m.board.grouped}{#if board.data?.network}{' · '}{m.board.network}
          <span class="mono">{board.data.network}</span>{/if}</span
      >
      <span class="end">
        <label class="sub"
          ><input
            type="checkbox"
            checked={only}
            onchange={(event) => go(`/b/${bringUpId()}${event.currentTarget.checked ? '?only=faults' : ''}`)}
          />
          {m.board.only}</label
        >
        <span class="hint">{m.board.move} <kbd>J</kbd> <kbd>K</kbd> {m.board.open} <kbd>↵</kbd></span>
      </span>
    </div>
    <div class="sheet cards">
      <ManyRows
        bind:this={table}
        items={lines}
        key={(line: Line) => (line.row ? line.row.unitId : `rack ${line.rack}`)}
        height={(line: Line) => (line.row ? (narrow.current ? 132 : 42) : 28)}
        cols={6}
        widths={WIDTHS}
        label={m.board.title}
      >
        {#snippet head()}<tr
            ><th>{m.board.unit}</th
            >{#each ['prepare', 'allocate', 'configure', 'prove', 'handover'] as const as stage (stage)}<th
                >{m.stages[stage].slice(2)}</th
              >{/each}</tr
          >{/snippet}
        {#snippet row(line: Line)}
          {#if line.row}
            {@const row = line.row}
            <BoardRow
              {row}
              on={row.unitId === chosenUnit()}
              onchoose={() => choose(row.unitId)}
              onopen={() => open(row)}
            />
          {:else}
            <tr class="group"
              ><th colspan="6" scope="rowgroup">{m.board.rack(line.rack, line.rows.length, up(line.rows))}</th></tr
            >
          {/if}
        {/snippet}
      </ManyRows>
      {#if board.data && lines.length === 0}<p class="none">
          {only ? m.board.noneMatch : m.board.none}{#if !only}{' '}<a href={path(bringUpId(), 'prepare')}
              >{m.stages.prepare}</a
            >{/if}
        </p>{/if}
    </div>
  </div>
  <aside class="side" aria-label={m.board.now}>
    <h2>{m.board.now}</h2>
    <div class="gap"></div>
    {#if board.data}
      <Todos todos={board.data.todos} />
      {#if board.data.todos.length === 0}<p class="sub">{m.board.nothing}</p>{/if}
      {#if board.data.waiting.length > 0}<h3>{m.board.waiting}</h3>
        <Todos todos={board.data.waiting} />{/if}
    {/if}
  </aside>
</div>

<style>
  .gap {
    height: 10px;
  }
  .none {
    padding: 18px 8px;
    margin: 0;
  }
  .side {
    width: 262px;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  @media (max-width: 700px) {
    .cards :global(table),
    .cards :global(tbody),
    .cards :global(tr.group),
    .cards :global(tr.group th) {
      display: block;
    }
    .cards :global(thead) {
      display: none;
    }
  }
  @media (max-width: 900px) {
    .side {
      width: auto;
    }
    .hint {
      display: none;
    }
  }
</style>
