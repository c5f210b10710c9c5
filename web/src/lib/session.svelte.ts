import { api, forgetAnswers, Problem } from './api';
import type { Door, Me } from './types';

type State = { status: 'asking' } | { status: 'out'; door: Door } | { status: 'in'; me: Me } | { status: 'silent' };

/** Who is signed in. */
class Session {
  state = $state<State>({ status: 'asking' });

  async ask(): Promise<void> {
    try {
      this.state = { status: 'in', me: await api.get<Me>('/session') };
    } catch (error) {
      if (error instanceof Problem && error.status === 401) {
        forgetAnswers();
        this.state = { status: 'out', door: await api.get<Door>('/door') };
      } else {
        this.state = { status: 'silent' };
      }
    }
  }

  /** Looks whether the person is still signed in; a server that does not answer says nothing of that. */
  async stillIn(): Promise<void> {
    try {
      await api.get<Me>('/session');
    } catch (error) {
      if (error instanceof Problem && error.status === 401) await this.ask();
    }
  }

  get me(): Me | null {
    return this.state.status === 'in' ? this.state.me : null;
  }

  /** Whether the person may change things. */
  get mayWork(): boolean {
    return this.me !== null && this.me.role !== 'viewer';
  }

  async signOut(): Promise<void> {
    await api.delete('/session');
    forgetAnswers();
    await this.ask();
  }
}

export const session = new Session();
