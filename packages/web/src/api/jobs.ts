import type { Job, JobDraft, Picture } from '@tersum/document';
import { JobSchema, PictureSchema, ProblemSchema } from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { z } from 'zod';
import { request, RequestProblem } from './client.js';

export const JOBS = '/api/jobs';

/** The job board. */
export function useJobs() {
  return useSWR(JOBS, (path) => request(z.array(JobSchema), path));
}

export async function createJob(draft: JobDraft): Promise<Job> {
  const job = await request(JobSchema, JOBS, { body: draft });
  await mutate(JOBS);
  return job;
}

export async function updateJob(id: string, draft: JobDraft): Promise<Job> {
  const job = await request(JobSchema, `${JOBS}/${id}`, { method: 'PUT', body: draft });
  await mutate(JOBS);
  return job;
}

async function act(id: string, method: string, rest: string, body?: unknown): Promise<void> {
  await request(z.unknown(), `${JOBS}/${id}${rest}`, { method, ...(body ? { body } : {}) });
  await mutate(JOBS);
}

export const archiveJob = (id: string, archived: boolean): Promise<void> =>
  act(id, 'POST', '/archive', { archived });
export const duplicateJob = (id: string): Promise<void> => act(id, 'POST', '/duplicate');
export const deleteJob = (id: string): Promise<void> => act(id, 'DELETE', '');
export const restoreJob = (id: string): Promise<void> => act(id, 'POST', '/restore');

/**
 * Sends a picture file. Ends early when `signal` is aborted; then nothing is left behind.
 * @param progress share of the bytes sent, 0..1
 */
export function uploadPicture(
  jobId: string,
  file: File,
  progress: (share: number) => void,
  signal: AbortSignal,
): Promise<Picture> {
  return new Promise((resolve, reject) => {
    // fetch cannot report how much has been sent.
    const send = new XMLHttpRequest();
    send.open('POST', `${JOBS}/${jobId}/pictures`);
    send.responseType = 'json';
    send.upload.onprogress = (event) => {
      if (event.lengthComputable) progress(event.loaded / event.total);
    };
    send.onload = () => {
      if (send.status === 201) {
        void mutate(JOBS);
        resolve(PictureSchema.parse(send.response));
        return;
      }
      const problem = ProblemSchema.safeParse(send.response);
      reject(
        new RequestProblem(
          send.status,
          problem.success ? problem.data.message : 'The server refused this file.',
        ),
      );
    };
    send.onerror = () =>
      reject(new RequestProblem(0, 'The connection broke. Send the file again.'));
    send.onabort = () => reject(new DOMException('cancelled', 'AbortError'));
    signal.addEventListener('abort', () => send.abort(), { once: true });
    const form = new FormData();
    form.append('file', file);
    send.send(form);
  });
}
