import { waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { again } from '../src/lib/again.svelte';
import { api, forgetAnswers, Problem } from '../src/lib/api';

const answer = (status: number, body: string) =>
  vi.stubGlobal(
    'fetch',
    vi.fn(() => Promise.resolve(new Response(status === 204 ? null : body, { status }))),
  );
const problem = async (work: Promise<unknown>): Promise<Problem> => {
  const error: unknown = await work.catch((e: unknown) => e);
  expect(error).toBeInstanceOf(Problem);
  return error as Problem;
};

afterEach(() => vi.unstubAllGlobals());

describe('the server’s answers', () => {
  it('come back as what they are', async () => {
    answer(200, '{"firstLeadWanted":true}');
    expect(await api.get('/door')).toEqual({ firstLeadWanted: true });
    answer(204, '');
    expect(await api.post('/session')).toEqual({});
  });
  it('keep the sentence and the faults of a refusal', async () => {
    answer(
      400,
      '{"detail":"Some values are invalid","faults":[{"field":"prefix","reason":"10.40.8.7/24 has host bits set."}]}',
    );
    const error = await problem(api.put('/bring-ups/1/network', {}));
    expect(error.status).toBe(400);
    expect(error.faults).toEqual({ prefix: '10.40.8.7/24 has host bits set.' });
  });
  it('say so when there is none', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(() => Promise.reject(new TypeError('failed'))),
    );
    const error = await problem(api.get('/session'));
    expect(error.status).toBe(0);
    expect(error.detail).toContain('does not answer');
  });
  it('do not break on what is no JSON', async () => {
    answer(502, '<html>');
    expect((await problem(api.get('/session'))).detail).toContain('502');
    answer(413, '');
    expect((await problem(api.postText('/bring-ups/1/labels', 'x'))).detail).toContain('4 MB');
  });
  it('send text as text and objects as JSON', async () => {
    const fetched = vi.fn<(path: string, init: RequestInit) => Promise<Response>>(() =>
      Promise.resolve(new Response('{}')),
    );
    vi.stubGlobal('fetch', fetched);
    await api.postText('/bring-ups/1/labels', 'serial,mac');
    await api.post('/session', { login: 'a' });
    expect(
      fetched.mock.calls.map(([path, init]) => [
        path,
        init.body,
        (init.headers as Record<string, string>)['Content-Type'],
      ]),
    ).toEqual([
      ['/api/bring-ups/1/labels', 'serial,mac', 'text/plain'],
      ['/api/session', '{"login":"a"}', 'application/json'],
    ]);
  });
  it('are asked for a second time once the password was typed again, and not where it was not', async () => {
    const again403 = () =>
      new Response('{"detail":"Enter your password again for this.","code":"SIGN_IN_AGAIN"}', { status: 403 });
    const answers = [again403(), new Response('{"text":"shown"}')];
    vi.stubGlobal(
      'fetch',
      vi.fn(() => Promise.resolve(answers.shift()!)),
    );
    const shown = api.post('/dialogues/1/steps/2/password');
    await waitFor(() => expect(again.asking).toBe(true));
    again.end(true);
    expect(await shown).toEqual({ text: 'shown' });
    answers.push(again403());
    const refused = problem(api.post('/dialogues/1/steps/2/password'));
    await waitFor(() => expect(again.asking).toBe(true));
    again.end(false);
    expect((await refused).status).toBe(403);
    expect(again.asking).toBe(false);
  });
  it('are not sent again while they are the same', async () => {
    const fetched = vi.fn<(path: string, init: RequestInit) => Promise<Response>>();
    fetched.mockResolvedValueOnce(new Response('{"rows":[1]}', { headers: { ETag: '"7"' } }));
    fetched.mockResolvedValueOnce(new Response(null, { status: 304 }));
    fetched.mockResolvedValueOnce(new Response('{"rows":[1,2]}', { headers: { ETag: '"8"' } }));
    vi.stubGlobal('fetch', fetched);
    expect(await api.get('/bring-ups/9/board')).toEqual({ rows: [1] });
    expect(await api.get('/bring-ups/9/board')).toEqual({ rows: [1] });
    expect(await api.get('/bring-ups/9/board')).toEqual({ rows: [1, 2] });
    expect(fetched.mock.calls.map(([, init]) => (init.headers as Record<string, string>)['If-None-Match'])).toEqual([
      undefined,
      '"7"',
      '"7"',
    ]);
    forgetAnswers();
    fetched.mockResolvedValueOnce(new Response('{}'));
    await api.get('/bring-ups/9/board');
    expect((fetched.mock.calls[3]![1].headers as Record<string, string>)['If-None-Match']).toBeUndefined();
  });
});
