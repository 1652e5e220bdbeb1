import { z } from 'zod';
import { messageOf, request, RequestProblem } from './client.js';

const schema = z.object({ n: z.number() });
const answers = (status: number, body: unknown): jest.Mock => {
  const asked = jest.fn(() =>
    Promise.resolve({
      ok: status < 400,
      status,
      json: () =>
        body === undefined ? Promise.reject(new Error('no JSON')) : Promise.resolve(body),
    }),
  );
  Object.assign(globalThis, { fetch: asked });
  return asked;
};
const problem = (asked: Promise<unknown>): Promise<RequestProblem> =>
  asked.then(
    () => {
      throw new Error('it was answered');
    },
    (error: unknown) => error as RequestProblem,
  );

test('a question without a body is read, one with a body is posted as JSON', async () => {
  const asked = answers(200, { n: 5 });
  expect(await request(schema, '/a')).toEqual({ n: 5 });
  expect(asked.mock.lastCall![1]).toEqual({ method: 'GET' });
  await request(schema, '/a', { body: { x: 1 } });
  expect(asked.mock.lastCall![1]).toEqual({
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: '{"x":1}',
  });
  await request(schema, '/a', { method: 'DELETE' });
  expect(asked.mock.lastCall![1]).toEqual({ method: 'DELETE' });
});

test('a refusal carries the server’s own sentence and its status', async () => {
  answers(422, { message: 'Too wide.' });
  const refused = await problem(request(schema, '/a'));
  expect(refused).toBeInstanceOf(RequestProblem);
  expect([refused.status, messageOf(refused)]).toEqual([422, 'Too wide.']);
});

test('a refusal without a sentence gets one', async () => {
  answers(502, undefined);
  expect(messageOf(await problem(request(schema, '/a')))).toMatch(/Reload the page/);
});

test('a server that does not answer is told so, and that nothing is lost', async () => {
  Object.assign(globalThis, { fetch: () => Promise.reject(new TypeError('fetch failed')) });
  const away = await problem(request(schema, '/a'));
  expect(away.status).toBe(0);
  expect(messageOf(away)).toMatch(/does not answer.*Nothing that was saved is lost/);
});

test('a question that was taken back is no problem of the server', async () => {
  const taken = new AbortController();
  taken.abort();
  const error = new DOMException('taken back', 'AbortError');
  Object.assign(globalThis, { fetch: () => Promise.reject(error) });
  expect(await problem(request(schema, '/a', { signal: taken.signal }))).toBe(error);
});

test('an answer of another shape is not taken for one', async () => {
  answers(200, { n: 'five' });
  const wrong = await problem(request(schema, '/a'));
  expect(wrong).toBeInstanceOf(z.ZodError);
  expect(messageOf(wrong)).toMatch(/Something unexpected/);
});
