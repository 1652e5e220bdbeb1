import type { House, WorkTime } from '@tersum/document';
import { HouseSchema, OwnTimesSchema, WorkLogSchema } from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { z } from 'zod';
import { request } from './client.js';
import { JOBS } from './jobs.js';

const HOUSE = '/api/house';
const workOf = (id: string): string => `/api/pictures/${id}/work`;

/** Working hours, rate and rest as the house has set them. */
export function useHouse() {
  return useSWR(HOUSE, (path) => request(HouseSchema, path), { revalidateOnFocus: false });
}

export async function setHouse(house: House): Promise<void> {
  const kept = await request(HouseSchema, HOUSE, { method: 'PUT', body: house });
  await mutate(HOUSE, kept, { revalidate: false });
  // What is left to do follows from the times that were set.
  await mutate(JOBS);
}

/** Own seconds for one finding, by kind. */
export function useOwnTimes() {
  return useSWR(`${HOUSE}/times`, (path) => request(OwnTimesSchema, path));
}

/** A picture's log of work. */
export function useWorkLog(id: string) {
  return useSWR(workOf(id), (path) => request(WorkLogSchema, path));
}

/** Keeps a piece of working time. It matters less than anything else, so nobody is told when it fails. */
export function keepTime(id: string, time: WorkTime): void {
  const body = new Blob([JSON.stringify(time)], { type: 'application/json' });
  // A beacon still goes out when the window is being closed.
  if (navigator.sendBeacon(workOf(id), body)) return;
  request(z.unknown(), workOf(id), { body: time }).catch(() => undefined);
}
