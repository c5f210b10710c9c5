<script lang="ts">
  import type { ColumnView } from '../lib/types';
  import { m } from '../messages';

  /** What each column of a list holds, as it is read; a person corrects it. */
  let {
    columns,
    meanings,
    onchoose,
  }: {
    columns: ColumnView[];
    meanings: [word: string, title: string][];
    /** given the meaning of every column, by its index */
    onchoose: (chosen: Record<number, string>) => void;
  } = $props();

  /** One thing is read from one column: the column that had it before loses it. */
  function choose(index: number, meaning: string): void {
    const now = Object.fromEntries(columns.map((column) => [column.index, column.meaning]));
    for (const other of Object.keys(now)) if (now[Number(other)] === meaning) now[Number(other)] = '';
    now[index] = meaning;
    onchoose(now);
  }
</script>

{#if columns.length > 0}
  <p class="sub">{m.columns.say}</p>
  <div class="sheet scroll columns">
    {#each columns as column (column.index)}
      <label>
        <span class="head">{column.heading || m.columns.nth(column.index + 1)}</span>
        <select value={column.meaning} onchange={(event) => choose(column.index, event.currentTarget.value)}>
          <option value="">{m.columns.none}</option>
          {#each meanings as [meaning, title] (meaning)}<option value={meaning}>{title}</option>{/each}
        </select>
        <span class="mono sub sample">{column.sample}</span>
      </label>
    {/each}
  </div>
{/if}

<style>
  .columns {
    display: flex;
    gap: 12px;
    padding: 8px 12px;
    margin-bottom: 12px;
    overflow-x: auto;
  }
  .columns label {
    display: grid;
    gap: 3px;
    flex: 0 1 190px;
    min-width: 120px;
    align-content: start;
    font-size: 13px;
  }
  .head {
    font-weight: 600;
  }
  .sample {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  select {
    width: 100%;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    padding: 5px 6px;
  }
</style>
