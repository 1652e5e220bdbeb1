import type { Making } from '@tersum/document';
import { MakingStatusSchema } from '@tersum/document';
import { mutate } from 'swr';
import { z } from 'zod';
import { request } from './client.js';

const path = (job: string, rest = ''): string => `/api/jobs/${job}/makings${rest}`;

export const beginMaking = (job: string, making: Making) =>
  request(MakingStatusSchema, path(job), { body: making });

export async function getMaking(job: string, id: string) {
  const status = await request(MakingStatusSchema, path(job, `/${id}`));
  if (status.state === 'ready') await mutate('/api/jobs');
  return status;
}

export const stopMaking = (job: string, id: string) =>
  request(z.object({}), path(job, `/${id}`), { method: 'DELETE' });
