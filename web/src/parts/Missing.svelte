<script lang="ts">
  import type { StageName } from '../lib/types';
  import { bringUpId, path } from '../routes';

  /** Says that an earlier stage has to come first, and leads there. */
  let { text, stage, link }: { text: string; stage: StageName; link: string } = $props();
</script>

<p class="sheet">{text} <a href={path(bringUpId(), stage)}>{link}</a></p>

<style>
  p {
    padding: 18px;
    margin: 0;
  }
</style>
