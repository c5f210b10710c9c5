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

/**
 * What was answered last, by path, with its tag: the server lets no browser store its answers, and one that has not
 * changed need not be sent again (RFC 9110, section 13.1.2). Kept only as long as the page; the oldest falls out.
 */
const answered = new Map<string, { tag: string; json: unknown }>();
const MOST_ANSWERED = 40;

function remember(path: string, answer: Response, json: unknown): void {
  const tag = answer.headers.get('ETag');
  answered.delete(path);
  if (!tag) return;
  answered.set(path, { tag, json });
  const oldest = answered.keys().next().value;
  if (answered.size > MOST_ANSWERED && oldest !== undefined) answered.delete(oldest);
}

async function send<T>(
  method: string,
  path: string,
  body?: unknown,
  type = 'application/json',
  ifMatch?: string,
): Promise<T> {
  let answer: Response;
  const before = method === 'GET' ? answered.get(path) : undefined;
  try {
    answer = await fetch('/api' + path, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': type }),
        ...(before ? { 'If-None-Match': before.tag } : {}),
        ...(ifMatch === undefined ? {} : { 'If-Match': `"${ifMatch}"` }),
      },
      body:
        body === undefined ? undefined : typeof body === 'string' || body instanceof Blob ? body : JSON.stringify(body),
      credentials: 'same-origin',
    });
  } catch {
    throw new Problem(0, m.frame.unreachable);
  }
  if (answer.status === 304 && before) return before.json as T;
  const text = await answer.text();
  const json = text.startsWith('{') || text.startsWith('[') ? (JSON.parse(text) as Record<string, unknown>) : {};
  if (answer.status === 403 && json.code === 'SIGN_IN_AGAIN' && (await again.ask()))
    return send<T>(method, path, body, type, ifMatch);
  if (!answer.ok) {
    const plain = answer.status === 413 ? m.frame.tooLarge : m.frame.noSense(answer.status);
    throw new Problem(answer.status, typeof json.detail === 'string' ? json.detail : plain, json);
  }
  if (method === 'GET') remember(path, answer, json);
  return json as T;
}

/** Nothing of one person's answers is left for the next one who signs in here. */
export const forgetAnswers = () => answered.clear();

export const api = {
  get: <T>(path: string) => send<T>('GET', path),
  post: <T = unknown>(path: string, body?: unknown) => send<T>('POST', path, body ?? {}),
  postText: <T>(path: string, text: string) => send<T>('POST', path, text, 'text/plain'),
  put: <T = unknown>(path: string, body: unknown) => send<T>('PUT', path, body),
  delete: (path: string) => send<unknown>('DELETE', path),
  /**
   * Changes of a text that somebody else may change at the same time: {@code seen} is the version that was looked at.
   */
  putTextIf: <T>(path: string, text: string, seen: string) => send<T>('PUT', path, text, 'text/plain', seen),
  postIf: <T>(path: string, body: unknown, seen: string) => send<T>('POST', path, body, 'application/json', seen),
  /** A file as it is. */
  postFile: <T>(path: string, file: Blob, type: string, seen?: string) => send<T>('POST', path, file, type, seen),
  putFile: <T>(path: string, file: Blob, type: string) => send<T>('PUT', path, file, type),
  deleteIf: (path: string, seen: string) => send<unknown>('DELETE', path, undefined, 'application/json', seen),
  /** A text as it is. */
  text: async (path: string): Promise<string> => {
    const answer = await fetch('/api' + path, { credentials: 'same-origin' });
    if (!answer.ok) throw new Problem(answer.status, m.frame.noSense(answer.status));
    return answer.text();
  },
};
