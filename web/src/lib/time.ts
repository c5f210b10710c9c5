/** Times as people at the rack read them: local, the zone on hover. */
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
const full = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'long' });

/** `09:12` today, `Tue 24 Nov 09:12` on another day. */
export function atTime(iso: string | number | null): string {
  if (!iso) return '';
  const date = new Date(iso);
  const today = date.toDateString() === new Date().toDateString();
  return today ? clock.format(date) : `${day.format(date)} ${clock.format(date)}`;
}

export function onDay(iso: string): string {
  return day.format(new Date(iso));
}

/** With the zone, for the title of an element. */
export function inFull(iso: string | null): string {
  return iso ? full.format(new Date(iso)) : '';
}

/** `1:05` minutes and seconds between two moments. */
export function lasting(fromIso: string, now: number): string {
  const seconds = Math.max(0, Math.floor((now - new Date(fromIso).getTime()) / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

/** How long something usually takes, such as `3 min` or `45 s`. */
export const usually = (seconds: number) => (seconds % 60 === 0 ? `${seconds / 60} min` : `${seconds} s`);
