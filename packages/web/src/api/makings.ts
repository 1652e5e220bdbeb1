import type { JoinQuery, Making } from '@tersum/document';
import { JoinPlanSchema, MakingStatusSchema } from '@tersum/document';
import { mutate } from 'swr';
import { z } from 'zod';
import { request } from './client.js';

const path = (job: string, rest = ''): string => `/api/jobs/${job}/makings${rest}`;

export const beginMaking = (job: string, making: Making) =>
  request(MakingStatusSchema, path(job), { body: making });

/** What joined frames will come to, by a small trial. */
export const planJoin = (job: string, query: JoinQuery, signal: AbortSignal) =>
  request(JoinPlanSchema, `/api/jobs/${job}/joins/plan`, { body: query, signal });

export async function getMaking(job: string, id: string) {
  const status = await request(MakingStatusSchema, path(job, `/${id}`));
  if (status.state === 'ready') await mutate('/api/jobs');
  return status;
}

export const stopMaking = (job: string, id: string) =>
  request(z.object({}), path(job, `/${id}`), { method: 'DELETE' });
