import type { Request, Response } from 'express';

/** Aborts when whoever asked has gone. */
export function endedBy(req: Request, res: Response): AbortSignal {
  const gone = new AbortController();
  res.on('close', () => {
    if (!res.writableEnded) gone.abort();
  });
  req.on('aborted', () => gone.abort());
  return gone.signal;
}
