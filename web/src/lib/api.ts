import { m } from '../messages';
import { again } from './again.svelte';

/** A problem document of the server (RFC 9457), or its silence. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly members: Record<string, unknown> = {},
  ) {
    super(detail);
  }

  /** What is wrong with single fields of a form, by field. */
  get faults(): Record<string, string> {
    const list = (this.members.faults ?? []) as { field: string; reason: string }[];
    return Object.fromEntries(list.map((fault) => [fault.field, fault.reason]));
  }
}

async function send<T>(method: string, path: string, body?: unknown, type = 'application/json'): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch('/api' + path, {
      method,
      headers: body === undefined ? {} : { 'Content-Type': type },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
      credentials: 'same-origin',
    });
  } catch {
    throw new Problem(0, m.frame.unreachable);
  }
  const text = await answer.text();
  const json = text.startsWith('{') || text.startsWith('[') ? (JSON.parse(text) as Record<string, unknown>) : {};
  if (answer.status === 403 && json.code === 'SIGN_IN_AGAIN' && (await again.ask())) return send<T>(method, path, body, type);
  if (!answer.ok) {
    const plain = answer.status === 413 ? m.frame.tooLarge : m.frame.noSense(answer.status);
    throw new Problem(answer.status, typeof json.detail === 'string' ? json.detail : plain, json);
  }
  return json as T;
}

export const api = {
  get: <T>(path: string) => send<T>('GET', path),
  post: <T = unknown>(path: string, body?: unknown) => send<T>('POST', path, body ?? {}),
  postText: <T>(path: string, text: string) => send<T>('POST', path, text, 'text/plain'),
  put: <T = unknown>(path: string, body: unknown) => send<T>('PUT', path, body),
  delete: (path: string) => send<unknown>('DELETE', path),
};
