import { ProofAnswerSchema } from '@tersum/document';
import { request } from './client.js';

/** Measures every repair for what gives it away; aborting ends the measuring. */
export const proveRepairs = (id: string, signal: AbortSignal) =>
  request(ProofAnswerSchema, `/api/pictures/${id}/proof`, { method: 'POST', signal });
