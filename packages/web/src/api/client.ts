import { ProblemSchema } from '@tersum/document';
import type { z } from 'zod';

/** An answer that was not what was asked for; the message is meant for the person. */
export class RequestProblem extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Asks the server. @throws RequestProblem */
export async function request<T extends z.ZodType>(
  schema: T,
  path: string,
  options: { method?: string; body?: unknown; signal?: AbortSignal } = {},
): Promise<z.output<T>> {
  let response: Response;
  try {
    response = await fetch(path, {
      method: options.method ?? (options.body === undefined ? 'GET' : 'POST'),
      ...(options.body === undefined
        ? {}
        : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(options.body) }),
      ...(options.signal ? { signal: options.signal } : {}),
    });
  } catch (error) {
    if (options.signal?.aborted) throw error;
    throw new RequestProblem(
      0,
      'The server does not answer. Is it still running? Nothing that was saved is lost.',
    );
  }
  const data: unknown = await response.json().catch(() => null);
  if (!response.ok) throw new RequestProblem(response.status, problemOf(data));
  return schema.parse(data);
}

function problemOf(data: unknown): string {
  const problem = ProblemSchema.safeParse(data);
  return problem.success ? problem.data.message : 'The server gave no reason. Reload the page.';
}

/** The sentence to show for anything that was thrown. */
export function messageOf(error: unknown): string {
  if (error instanceof RequestProblem) return error.message;
  return 'Something unexpected happened. Reload the page; nothing that was saved is lost.';
}
