import { Problem } from './api';

/** What is said for a few seconds at the foot of the page, with an undo where there is one. */
export interface Notice {
  id: number;
  text: string;
  fault: boolean;
  undo?: () => void;
}

const SECONDS = 9;

class Notices {
  list = $state<Notice[]>([]);
  private next = 1;

  say(text: string, undo?: () => void): void {
    this.add({ id: this.next++, text, fault: false, undo });
  }

  /** Says what went wrong, in the server's own sentence. */
  fault(error: unknown): void {
    this.add({ id: this.next++, text: error instanceof Problem ? error.detail : String(error), fault: true });
  }

  close(id: number): void {
    this.list = this.list.filter((notice) => notice.id !== id);
  }

  private add(notice: Notice): void {
    this.list = [...this.list.slice(-1), notice];
    if (!notice.fault) setTimeout(() => this.close(notice.id), SECONDS * 1000);
  }
}

export const notices = new Notices();
