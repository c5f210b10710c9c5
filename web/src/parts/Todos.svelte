<script lang="ts">
  import type { Todo } from '../lib/types';
  import { bringUpId, path } from '../routes';

  let { todos }: { todos: Todo[] } = $props();
</script>

{#each todos as todo (todo.title + todo.unitId)}
  <a
    class="note"
    class:fault={todo.mark === 'fault'}
    class:wait={todo.mark === 'wait'}
    href={path(bringUpId(), todo.stage, todo.unitId)}
  >
    <span class="t">{todo.title}</span><br /><span class="sub">{todo.text}</span>
  </a>
{/each}
