import type { Job } from '@tersum/document';

/** Which jobs are on the board. */
export const SHOWN = {
  open: 'Open',
  delivered: 'Delivered',
  archived: 'Archived',
  all: 'All',
} as const;
export type Shown = keyof typeof SHOWN;

/** Jobs of a sort whose title, client, notes or pictures hold every word that was typed. */
export function filtered(jobs: readonly Job[], shown: Shown, words: string): Job[] {
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  return jobs.filter((job) => {
    if (shown === 'archived' ? !job.archived : shown !== 'all' && job.archived) return false;
    if (shown === 'open' && job.state === 'delivered') return false;
    if (shown === 'delivered' && job.state !== 'delivered') return false;
    const text = [job.title, job.client, job.notes, job.state, ...job.pictures.map((p) => p.name)]
      .join(' ')
      .toLowerCase();
    return asked.every((word) => text.includes(word));
  });
}
