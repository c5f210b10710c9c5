<script lang="ts">
  import { m } from '../../../messages';
  import type { Member } from './types';

  /** The planned values beside the console of a setup by hand: each is typed with one press, Enter stays a person's. */
  let { member, onvalue }: { member: Member; onvalue: ((name: string) => void) | null } = $props();
  const t = m.bench.manual;
</script>

{#if onvalue}<p class="sub">{t.press}</p>{/if}
<div class="values">
  <ul>
    {#each member.values as value (value.name)}
      <li>
        <span class="t">{t.names[value.name] ?? value.title}</span>
        {#if onvalue}<button
            type="button"
            class="v mono"
            aria-label={t.type(t.names[value.name] ?? value.title)}
            onclick={() => onvalue(value.name)}>{value.text ?? '••••••••'}</button
          >{:else}<span class="v mono">{value.text ?? '••••••••'}</span>{/if}
      </li>
    {/each}
  </ul>
</div>

<style>
  .values {
    overflow-y: auto;
    flex: 1;
    min-height: 120px;
  }
  .sub {
    margin: 0;
    padding: 7px 12px;
    border-bottom: 1px solid var(--line2);
  }
  .t::first-letter {
    text-transform: uppercase;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    gap: 12px;
    align-items: center;
    justify-content: space-between;
    padding: 3px 12px;
    border-bottom: 1px solid var(--line2);
  }
  .t {
    display: inline-block;
  }
  .v {
    text-align: right;
    overflow-wrap: anywhere;
  }
  button.v {
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 2px 8px;
    background: var(--sheet);
  }
  button.v:hover {
    background: var(--lamp2);
  }
</style>
