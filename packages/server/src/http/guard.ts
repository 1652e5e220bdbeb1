import type { RequestHandler } from 'express';
import { UserProblem } from '@tersum/codec';

const LOCAL = new Set(['localhost', '127.0.0.1', '[::1]']);

/**
 * Keeps foreign web pages out: requests must name this machine (no DNS rebinding), and a write that carries
 * an Origin must carry ours.
 * @param extraHost a host name the server was told to answer to, if any
 */
export function guard(extraHost: string | null): RequestHandler {
  return (req, _res, next) => {
    const host = req.headers.host ?? '';
    const name = host.replace(/:\d+$/, '');
    if (!LOCAL.has(name) && name !== extraHost)
      throw new UserProblem(403, 'This address is not one the server answers to.');
    const reading = req.method === 'GET' || req.method === 'HEAD';
    const { origin } = req.headers;
    if (!reading && origin !== undefined && origin !== `${req.protocol}://${host}`)
      throw new UserProblem(403, 'Changes are only taken from Tersum’s own pages.');
    const site = req.headers['sec-fetch-site'];
    if (!reading && site !== undefined && site !== 'same-origin' && site !== 'none')
      throw new UserProblem(403, 'Changes are only taken from Tersum’s own pages.');
    next();
  };
}
