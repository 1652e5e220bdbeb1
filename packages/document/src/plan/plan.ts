import type { House } from '../api/work.js';
import type { Job } from '../schema/job.js';

type Planned = Pick<Job, 'id' | 'due' | 'createdAt' | 'state' | 'archived' | 'work'>;

/** A day of the plan. */
export interface PlanDay {
  /** Year-month-day. */
  readonly day: string;
  /** Seconds there are for work, and that are taken. */
  readonly room: number;
  readonly taken: number;
}

/** When a job will be done. */
export interface PlanJob {
  readonly id: string;
  /** The day its work ends; today when nothing is left. */
  readonly ends: string;
  /** Whether that is after it is due. */
  readonly late: boolean;
}

export interface Plan {
  readonly days: readonly PlanDay[];
  readonly jobs: readonly PlanJob[];
}

/** Days shown at least, and planned at most. */
const SHOWN = 10;
const MOST = 400;

/** Jobs that wait for work, the ones due first on top; those without a due date last, older ones first. */
export function inOrder<T extends Planned>(jobs: readonly T[]): T[] {
  return jobs
    .filter((job) => job.state !== 'delivered' && !job.archived)
    .sort(
      (a, b) =>
        (a.due ?? '9999').localeCompare(b.due ?? '9999') || a.createdAt.localeCompare(b.createdAt),
    );
}

/**
 * A plain plan: earliest due first, as many hours a day as the house works, nothing in parallel (the earliest due date
 * rule, Jackson 1955, which keeps the greatest lateness least).
 * @param today year-month-day
 */
export function planOf(jobs: readonly Planned[], house: House, today: string): Plan {
  const room = house.hours * 3600;
  const days: { day: string; room: number; taken: number }[] = [];
  let date = today;
  const addDay = (): void => {
    while (!house.weekends && isWeekend(date)) date = dayAfter(date);
    days.push({ day: date, room, taken: 0 });
    date = dayAfter(date);
  };
  let at = 0;
  const planned = inOrder(jobs).map((job): PlanJob => {
    let left = job.work.remaining;
    let ends = today;
    while (left > 0 && at < MOST) {
      if (at === days.length) addDay();
      const day = days[at]!;
      const part = Math.min(left, day.room - day.taken);
      day.taken += part;
      left -= part;
      ends = day.day;
      if (day.taken >= day.room - 1e-6) at++;
    }
    return { id: job.id, ends, late: job.due !== null && ends > job.due };
  });
  while (days.length < SHOWN) addDay();
  return { days, jobs: planned };
}

/** Price of a time, rounded to a whole unit; null without a rate. */
export function priceOf(seconds: number, { rate }: Pick<House, 'rate'>): number | null {
  return rate === null ? null : Math.round((seconds / 3600) * rate);
}

function dayAfter(day: string): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
}

function isWeekend(day: string): boolean {
  return [0, 6].includes(new Date(`${day}T00:00:00Z`).getUTCDay());
}
