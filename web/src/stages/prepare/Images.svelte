<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { Image, ImagesView, ReceivedBytes } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';
  import { uploads } from './uploads.svelte';

  /** Image files of virtual machines: sent or found in the server's folder, and what was read in them. */
  const g = m.prepare.images;
  const view = live<ImagesView>(() => `/bring-ups/${bringUpId()}/images`);
  const base = () => `/bring-ups/${bringUpId()}/images`;
  const LONGEST_TEXT = 1_000_000;
  let fault = $state('');
  let editing = $state<{ id: number; manifest: string; description: string } | null>(null);
  let faults = $state<Record<string, string>>({});
  let removing = $state<number | null>(null);
  let chooser: HTMLInputElement | undefined = $state();
  /** Whose rest is to be sent with the file that is chosen next. */
  let resuming: Image | null = null;

  const isManifest = (file: File) => /\.(mf|sha256|sha256sums?|txt)$/i.test(file.name) && file.size < 100_000;
  const isDescription = (file: File) => /\.ovf$/i.test(file.name) && file.size < LONGEST_TEXT;

  async function chosen(list: FileList | null): Promise<void> {
    const files = [...(list ?? [])];
    if (chooser) chooser.value = '';
    fault = '';
    const manifest = files.find(isManifest);
    const description = files.find(isDescription);
    const images = files.filter((file) => file !== manifest && file !== description);
    try {
      if (resuming) {
        const image = resuming;
        resuming = null;
        const [file] = images;
        if (file?.size !== image.bytes) fault = g.otherFile(image.name, size(image.bytes));
        else void uploads.send(bringUpId(), image.id, file, image.received);
        return;
      }
      if (images.length === 0 && files.length > 0) fault = g.noImage;
      for (const file of images) {
        const added = await api.post<ReceivedBytes>(base(), {
          name: file.name,
          bytes: file.size,
          inFolder: false,
          manifest: await manifest?.text(),
          description: await description?.text(),
        });
        lookAgain();
        void uploads.send(bringUpId(), added.id, file, 0);
      }
    } catch (error) {
      fault = sentence(error);
    }
  }

  function sentence(error: unknown): string {
    if (!(error instanceof Problem)) return String(error);
    return Object.values(error.faults).join(' ') || error.detail;
  }

  async function addFromFolder(name: string): Promise<void> {
    fault = '';
    try {
      await api.post(base(), { name, bytes: 0, inFolder: true });
      lookAgain();
    } catch (error) {
      fault = sentence(error);
    }
  }

  async function savePapers(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!editing) return;
    try {
      const { id, manifest, description } = editing;
      await api.put(`${base()}/${id}/papers`, { manifest, description });
      editing = null;
      faults = {};
      lookAgain();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) notices.fault(error);
    }
  }

  async function remove(image: Image): Promise<void> {
    removing = null;
    uploads.stop(image.id);
    try {
      await api.delete(`${base()}/${image.id}`);
      lookAgain();
      notices.say(
        g.removed(image.name),
        image.inFolder
          ? () =>
              void api
                .post(base(), {
                  name: image.name,
                  bytes: 0,
                  inFolder: true,
                  manifest: image.manifest,
                  description: image.description,
                })
                .then(lookAgain, (error: unknown) => notices.fault(error))
          : undefined,
      );
    } catch (error) {
      notices.fault(error);
    }
  }

  const UNITS = ['B', 'KiB', 'MiB', 'GiB', 'TiB'];
  function size(bytes: number): string {
    const step = bytes < 1 ? 0 : Math.min(UNITS.length - 1, Math.floor(Math.log2(bytes) / 10));
    const value = bytes / 1024 ** step;
    return `${step === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${UNITS[step]}`;
  }

  /** How far something is, in whole per cent; never 100 before its end. */
  const share = (done: number, all: number) => Math.min(99, Math.floor((100 * done) / all));
  const received = (image: Image) => uploads.sent[image.id] ?? image.received;
</script>

<p class="sub">{g.intro}</p>
{#each view.data?.images ?? [] as image (image.id)}
  <div class="image">
    <div class="top">
      {#if image.state === 'CHECKED'}
        <Mark mark={image.contradictions.length > 0 ? 'fault' : 'done'} size={15} />
      {:else if image.state === 'FAILED'}
        <Mark mark="fault" size={15} />
      {/if}
      <b>{image.name}</b>
      <span class="sub">{size(image.bytes)}{image.format ? ` · ${image.format}` : ''}</span>
      {#if session.mayWork}
        <span class="acts">
          {#if image.state === 'ARRIVING' && !(image.id in uploads.sent)}
            <B
              look="go"
              onclick={() => {
                resuming = image;
                chooser?.click();
              }}>{g.goOn}</B
            >
          {/if}
          <B onclick={() => (editing = { id: image.id, manifest: image.manifest, description: image.description })}
            >{g.papers}</B
          >
          {#if removing === image.id}
            <B look="stop" onclick={() => void remove(image)}>{g.removeFile}</B>
            <B onclick={() => (removing = null)}>{m.prepare.cancel}</B>
          {:else}
            <B onclick={() => (image.inFolder ? void remove(image) : (removing = image.id))}>{m.prepare.removeRange}</B>
          {/if}
        </span>
      {/if}
    </div>
    {#if image.state === 'ARRIVING'}
      <progress value={received(image)} max={image.bytes} aria-label={g.arriving}></progress>
      <span class="sub"
        >{image.id in uploads.sent ? g.arriving : g.waits}
        {share(received(image), image.bytes)} %</span
      >
    {:else if image.state === 'READING'}
      <progress value={image.bytesRead} max={image.bytes} aria-label={g.reading}></progress>
      <span class="sub">{g.reading} {share(image.bytesRead, image.bytes)} %</span>
    {:else if image.state === 'FAILED'}
      <span class="bad">{g.faults[image.fault as keyof typeof g.faults]}</span>
    {:else}
      <span class="mono digest">SHA-256 {image.sha256}</span><br />
      {#each image.contradictions as wrong (wrong.file)}
        <span class="bad">{g.contradicts(wrong.file, wrong.stated, wrong.read)}</span><br />
      {:else}
        <span class="sub">{image.stated ? g.agrees : g.notStated}</span>
      {/each}
      {#if image.described}
        <span class="sub"
          >· {[
            `${image.described.product} ${image.described.version}`.trim(),
            image.described.cores > 0 ? g.cores(image.described.cores) : '',
            image.described.memory ? g.memory(image.described.memory) : '',
            image.described.disk ? g.disk(image.described.disk) : '',
            image.described.networks.length > 0 ? g.networks(image.described.networks) : '',
          ]
            .filter(Boolean)
            .join(' · ')}</span
        >
      {/if}
    {/if}
    {#if editing?.id === image.id}
      <form onsubmit={(event) => void savePapers(event)}>
        {#each ['manifest', 'description'] as const as field (field)}
          <label for="{field}-{image.id}">{g.texts[field]}</label>
          <Textarea
            id="{field}-{image.id}"
            class="mono"
            rows={4}
            bind:value={editing[field]}
            aria-invalid={field in faults}
            spellcheck="false"
          />
          <span class="bad">{faults[field] ?? ''}</span>
        {/each}
        <div class="row">
          <B look="go" type="submit">{m.prepare.saveEntry}</B><B onclick={() => (editing = null)}>{m.prepare.cancel}</B>
        </div>
      </form>
    {/if}
  </div>
{:else}
  {#if view.data}<p class="sub">{g.none}</p>{/if}
{/each}
{#if session.mayWork && view.data}
  <input
    bind:this={chooser}
    type="file"
    multiple
    hidden
    aria-label={g.upload}
    onchange={(event) => void chosen(event.currentTarget.files)}
  />
  <div class="row">
    <B look="go" onclick={() => chooser?.click()}>{g.upload}</B><span class="sub">{g.uploadHint}</span>
  </div>
  {#if fault}<p class="bad" role="alert">{fault}</p>{/if}
  <p class="sub folder">{g.folder} <span class="mono">{view.data.folder}</span></p>
  {#each view.data.waiting as name (name)}
    <div class="row waiting">
      <span class="mono">{name}</span><B onclick={() => void addFromFolder(name)}>{g.check}</B>
    </div>
  {:else}
    <p class="sub">{g.folderEmpty}</p>
  {/each}
{/if}

<style>
  .image {
    padding: 7px 0;
    border-bottom: 1px solid var(--line2);
    margin-bottom: 6px;
    overflow-wrap: anywhere;
  }
  .top,
  .row,
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  .acts {
    margin-left: auto;
  }
  .digest {
    font-size: 12px;
  }
  progress {
    width: 100%;
    height: 6px;
    accent-color: var(--lamp);
  }
  form {
    display: grid;
    gap: 6px;
    margin-top: 8px;
  }
  .folder {
    margin-top: 14px;
    overflow-wrap: anywhere;
  }
  .waiting {
    justify-content: space-between;
    padding: 3px 0;
  }
</style>
