<script lang="ts">
  import Requests from '../src/stages/prepare/Requests.svelte';
</script>

<Requests onclose={() => undefined} />
