import type { ErrorRequestHandler, Request } from 'express';
import type { Logger } from 'pino';
import type { z } from 'zod';
import { UserProblem } from '@tersum/codec';
import { Cancelled } from '@tersum/core';

/** The request's body, checked. @throws UserProblem naming the first thing that is wrong */
export function bodyOf<T extends z.ZodType>(schema: T, req: Request): z.output<T> {
  return checked(schema, req.body);
}

/** What the address asks for after its question mark, checked. @throws UserProblem as {@link bodyOf} */
export function queryOf<T extends z.ZodType>(schema: T, req: Request): z.output<T> {
  return checked(schema, req.query);
}

/** The names in the address, checked. @throws UserProblem as {@link bodyOf} */
export function paramsOf<T extends z.ZodType>(schema: T, req: Request): z.output<T> {
  return checked(schema, req.params);
}

function checked<T extends z.ZodType>(schema: T, told: unknown): z.output<T> {
  const result = schema.safeParse(told);
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  const where = issue.path.length ? `${issue.path.join('.')}: ` : '';
  throw new UserProblem(400, `${where}${issue.message}`);
}

/** Answers every error with one sentence; what nobody foresaw is logged and answered plainly. */
export function problems(log: Logger): ErrorRequestHandler {
  return (error: unknown, _req, res, next) => {
    // Whoever asked has gone; nobody waits for an answer.
    if (error instanceof Cancelled) return void res.end();
    if (res.headersSent) return next(error);
    if (error instanceof UserProblem)
      return void res.status(error.status).json({ message: error.message });
    const status = statusOf(error);
    if (status >= 500) log.error({ err: error }, 'request failed');
    const message =
      status === 413
        ? 'This is larger than can be taken in at once.'
        : status < 500
          ? 'The request could not be read. Reload the page and try again.'
          : 'Something went wrong on the server. Nothing was lost; try again.';
    res.status(status).json({ message });
  };
}

function statusOf(error: unknown): number {
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 600 ? status : 500;
}
