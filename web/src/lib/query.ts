import { createQuery, QueryClient } from '@tanstack/svelte-query';
import { api, Problem } from './api';
import { session } from './session.svelte';

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: Infinity,
      refetchOnWindowFocus: false,
      retry: (count, error) => !(error instanceof Problem && error.status > 0) && count < 3,
    },
  },
});

const ASKED_AGAIN_MS = 5000;

/** Whether the server was not reached, or failed; what it refuses it refuses again. */
const couldNotBeRead = (error: unknown): boolean =>
  error !== null && !(error instanceof Problem && error.status > 0 && error.status < 500);

/** Something of the server that is asked again whenever it tells of a change. */
export function live<T>(path: () => string | null) {
  return createQuery(() => ({
    queryKey: ['live', path()],
    enabled: path() !== null,
    // no news may come for a long time: what could not be read is read as soon as the server can be asked again
    refetchInterval: (query) => (couldNotBeRead(query.state.error) ? ASKED_AGAIN_MS : false),
    queryFn: async () => {
      try {
        return await api.get<T>(path()!);
      } catch (error) {
        if (error instanceof Problem && error.status === 401) void session.ask();
        throw error;
      }
    },
  }));
}

/** Asks again for everything that is shown. */
export function lookAgain(): void {
  void shownAgain();
}

/** The same; resolves once what is shown has been answered. */
export function shownAgain(): Promise<void> {
  return queries.invalidateQueries({ queryKey: ['live'] });
}
