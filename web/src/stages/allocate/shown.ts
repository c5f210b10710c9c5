import { go, route } from '../../routes';

/** What the stage shows, as the address bar says: network, part of it, unit, first address. */
export const search = (): Record<string, string> => route.search as Record<string, string>;

/** Shows something else; an entry without a value is taken out. */
export function show(change: Record<string, string | null>): void {
  const next: Record<string, string> = { ...search() };
  for (const [key, value] of Object.entries(change)) {
    if (value === null || value === '') delete next[key];
    else next[key] = value;
  }
  const query = new URLSearchParams(next).toString();
  go(route.pathname + (query ? '?' + query : ''));
}
