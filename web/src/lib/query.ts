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

/** Something of the server that is asked again whenever it tells of a change. */
export function live<T>(path: () => string | null) {
  return createQuery(() => ({
    queryKey: ['live', path()],
    enabled: path() !== null,
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
