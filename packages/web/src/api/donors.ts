import type { KeptDonor, KeptDonorDraft } from '@tersum/document';
import { KeptDonorSchema } from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { z } from 'zod';
import { request } from './client.js';

const address = (jobId: string): string => `/api/jobs/${jobId}/donors`;

/** Donors kept at hand for a job. */
export function useKeptDonors(jobId: string | undefined) {
  return useSWR(jobId ? address(jobId) : null, (path) => request(z.array(KeptDonorSchema), path));
}

export async function keepDonor(jobId: string, draft: KeptDonorDraft): Promise<KeptDonor> {
  const kept = await request(KeptDonorSchema, address(jobId), { body: draft });
  await mutate(address(jobId));
  return kept;
}

export async function dropKeptDonor(jobId: string, id: string): Promise<void> {
  await request(z.unknown(), `${address(jobId)}/${id}`, { method: 'DELETE' });
  await mutate(address(jobId));
}
