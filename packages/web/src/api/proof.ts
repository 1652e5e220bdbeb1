import type { ProofAnswer, SweptFrame } from '@tersum/document';
import { KeptProofSchema, ProofAnswerSchema, SweepAnswerSchema } from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { request } from './client.js';

const proofOf = (id: string): string => `/api/pictures/${id}/proof`;
const sweepOf = (id: string): string => `/api/pictures/${id}/sweep`;

/** The proof kept last; asked for again and again while one is under way, which tells how far it has come. */
export function useProof(id: string, busy: boolean) {
  return useSWR(proofOf(id), (path) => request(KeptProofSchema, path), {
    refreshInterval: busy ? 400 : 0,
    revalidateOnFocus: false,
  });
}

/** Measures what gives the repairs away, as far as they changed; aborting ends the measuring. */
export async function proveRepairs(id: string, signal: AbortSignal): Promise<ProofAnswer> {
  const proof = await request(ProofAnswerSchema, proofOf(id), { method: 'POST', signal });
  await mutate(proofOf(id), { proof, share: null }, { revalidate: false });
  return proof;
}

/** Which frames of the sweep were looked at. */
export function useSweep(id: string) {
  return useSWR(sweepOf(id), (path) => request(SweepAnswerSchema, path));
}

/** Keeps what was seen of a frame. */
export async function sweepFrame(id: string, frame: SweptFrame): Promise<void> {
  const answer = await request(SweepAnswerSchema, sweepOf(id), { body: frame });
  await mutate(sweepOf(id), answer, { revalidate: false });
}
