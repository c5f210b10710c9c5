<script lang="ts">
  import { create } from 'asciinema-player';
  import 'asciinema-player/dist/bundle/asciinema-player.css';
  import Dialog from '../../../parts/Dialog.svelte';
  import { m } from '../../../messages';

  /** Plays what a line showed, with its timing; pauses of more than two seconds are cut short. */
  let { dialogueId, title, onclose }: { dialogueId: number; title: string; onclose: () => void } = $props();
  const source = $derived(`/api/dialogues/${dialogueId}/recording.cast`);

  function attach(box: HTMLElement): () => void {
    const player = create(source, box, {
      fit: 'width',
      idleTimeLimit: 2,
      preload: true,
      terminalFontFamily: "'Atkinson Hyperlegible Mono Variable', monospace",
      poster: 'npt:0:01',
    });
    return () => player.dispose();
  }
</script>

<Dialog {title} wide {onclose}>
  <div {@attach attach}></div>
  <p><a href={source} download="line-{dialogueId}.cast">{m.bench.download}</a></p>
</Dialog>

<style>
  div {
    min-height: 300px;
  }
</style>
