import type { Query, QueryClient } from '@tanstack/svelte-query';

const LIVE = { queryKey: ['live'] };

/**
 * Asks again for what is shown. What is being asked for is not broken off: where changes come faster than an answer,
 * nothing would ever be shown. It is asked for once more when its answer is there, since that may be older than the
 * change.
 */
export class Refresh {
  private readonly behind = new Set<string>();
  private readonly leave: () => void;

  constructor(private readonly queries: QueryClient) {
    this.leave = queries.getQueryCache().subscribe((event) => {
      if (event.type === 'updated' && (event.action.type === 'success' || event.action.type === 'error'))
        this.answered(event.query as Query);
    });
  }

  all(): void {
    for (const query of this.queries.getQueryCache().findAll(LIVE))
      if (query.state.fetchStatus === 'fetching') this.behind.add(query.queryHash);
    void this.queries.invalidateQueries(LIVE, { cancelRefetch: false });
  }

  private answered(query: Query): void {
    // the answer must be taken in first: until then the query still counts as being asked for
    if (this.behind.delete(query.queryHash))
      queueMicrotask(
        () => void this.queries.invalidateQueries({ queryKey: query.queryKey, exact: true }, { cancelRefetch: false }),
      );
  }

  close(): void {
    this.leave();
  }
}
