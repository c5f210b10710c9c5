import { session } from '../src/lib/session.svelte';

const PEOPLE = {
  viewer: ['night-watch', 'Night watch'],
  engineer: ['rack-one', 'Engineer at rack one'],
  lead: ['hall-lead', 'Hall lead'],
} as const;

/** Somebody is signed in. */
export function signedIn(role: keyof typeof PEOPLE): void {
  session.state = {
    status: 'in',
    me: { login: PEOPLE[role][0], name: PEOPLE[role][1], role, vantage: 'hall-2 jump host' },
  };
}

/** What the server is asked, and what it answers: by the end of the path; a refusal by its status. */
export class Server {
  readonly sent: { method: string; path: string; body: unknown }[] = [];

  constructor(
    readonly answers: Record<string, unknown>,
    readonly refusals: Record<string, [number, unknown]> = {},
  ) {}

  readonly fetch = (path: string, init?: RequestInit): Promise<Response> => {
    const method = init?.method ?? 'GET';
    if (method !== 'GET')
      this.sent.push({ method, path, body: init?.body ? JSON.parse(init.body as string) : undefined });
    const refusal = Object.entries(this.refusals).find(([end]) => path.endsWith(end) && method !== 'GET')?.[1];
    const answer = Object.entries(this.answers).find(([end]) => path.split('?')[0]!.endsWith(end))?.[1];
    const [status, body] =
      refusal ??
      (answer === undefined && method === 'GET' ? [404, { detail: 'not in this test' }] : [200, answer ?? {}]);
    return Promise.resolve(
      new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }),
    );
  };
}
