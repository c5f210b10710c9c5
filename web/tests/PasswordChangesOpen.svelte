<script lang="ts">
  import PasswordChanges from '../src/stages/handover/PasswordChanges.svelte';
</script>

<PasswordChanges onclose={() => undefined} />
