import { Problem } from './api';
import { m } from '../messages';

/** Fetches a file that is made for this person, and hands it to the browser under the name that the server gives it. */
export async function download(path: string, body: unknown): Promise<void> {
  const answer = await fetch('/api' + path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
    credentials: 'same-origin',
  });
  if (!answer.ok) {
    const text = await answer.text();
    const problem = text.startsWith('{') ? (JSON.parse(text) as Record<string, unknown>) : {};
    throw new Problem(
      answer.status,
      typeof problem.detail === 'string' ? problem.detail : m.frame.noSense(answer.status),
      problem,
    );
  }
  const url = URL.createObjectURL(await answer.blob());
  const link = document.createElement('a');
  link.href = url;
  link.download = /filename="([^"]+)"/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1] ?? 'file';
  link.click();
  // the browser has begun to read it by then
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
