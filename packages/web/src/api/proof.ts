import type { TellLimits } from '@tersum/core';
import type { ProofAnswer, Stand, SweptFrame } from '@tersum/document';
import {
  KeptProofSchema,
  LimitsSchema,
  ProofAnswerSchema,
  SweepAnswerSchema,
} from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { request } from './client.js';

const proofOf = (id: string): string => `/api/pictures/${id}/proof`;
const LIMITS = '/api/house/limits';
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

/** Lets a tell stand, or has it told again. */
export async function letTellStand(id: string, stand: Stand): Promise<void> {
  const kept = await request(KeptProofSchema, `${proofOf(id)}/stand`, { body: stand });
  await mutate(proofOf(id), kept, { revalidate: false });
}

/** From which values on repairs tell. */
export function useLimits() {
  return useSWR(LIMITS, (path) => request(LimitsSchema, path), { revalidateOnFocus: false });
}

/** Sets the limits of the house; the proof of a picture is sifted by them. */
export async function setLimits(limits: TellLimits, id: string): Promise<void> {
  const kept = await request(LimitsSchema, LIMITS, { method: 'PUT', body: limits });
  await mutate(LIMITS, kept, { revalidate: false });
  await mutate(proofOf(id));
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
