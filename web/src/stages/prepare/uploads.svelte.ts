import { api, Problem } from '../../lib/api';
import { notices } from '../../lib/notices.svelte';
import { lookAgain } from '../../lib/query';

/** A small piece ends within the server's patience on a slow link; on a fast one there are fewer of them. */
const SMALL = 1024 * 1024;
const LARGE = 4 * SMALL;
const QUICK_MILLIS = 1500;
const PAUSE_MILLIS = 3000;

type Received = { id: number; received: number; bytes: number };

/** Files that are being sent, piece by piece. They go on while the page stays open, whatever it shows. */
class Uploads {
  /** How many bytes have been received, by image. */
  sent = $state<Record<number, number>>({});
  private readonly stopped = new Set<number>();

  /** Sends a file from where the server has it to its end. */
  async send(bringUp: number, image: number, file: Blob, from: number): Promise<void> {
    if (image in this.sent) return;
    this.stopped.delete(image);
    this.sent[image] = from;
    try {
      let size = SMALL;
      for (let at = from; at < file.size && !this.stopped.has(image);) {
        const began = performance.now();
        at = await this.piece(bringUp, image, file.slice(at, at + size), at);
        size = performance.now() - began < QUICK_MILLIS ? LARGE : SMALL;
        this.sent[image] = at;
      }
    } catch (error) {
      if (!this.stopped.has(image)) notices.fault(error);
    } finally {
      delete this.sent[image];
      lookAgain();
    }
  }

  /** Where the next piece begins. A server that cannot be reached is asked again until it can. */
  private async piece(bringUp: number, image: number, piece: Blob, at: number): Promise<number> {
    for (;;) {
      try {
        const path = `/bring-ups/${bringUp}/images/${image}/content?at=${at}`;
        return (await api.putFile<Received>(path, piece, 'application/octet-stream')).received;
      } catch (error) {
        const problem = error instanceof Problem ? error : new Problem(0, String(error));
        if (problem.status === 409 && typeof problem.members.received === 'number') return problem.members.received;
        if (this.stopped.has(image) || (problem.status !== 0 && problem.status !== 503)) throw problem;
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MILLIS));
      }
    }
  }

  stop(image: number): void {
    this.stopped.add(image);
  }

  get any(): boolean {
    return Object.keys(this.sent).length > 0;
  }
}

export const uploads = new Uploads();

/** Who leaves the page ends what is being sent. */
addEventListener('beforeunload', (event) => {
  if (uploads.any) event.preventDefault();
});
