import type { SurveyAnswer, SurveySettings } from '@tersum/document';
import { PictureRecordsSchema, SurveyAnswerSchema } from '@tersum/document';
import useSWR, { mutate } from 'swr';
import { z } from 'zod';
import { request } from './client.js';

const address = (id: string, rest = ''): string => `/api/pictures/${id}${rest}`;
const key = (id: string): string => address(id, '/survey');
/** How often a survey under way is asked about, ms. */
const ASKED_EVERY = 400;

/** The survey of a picture, kept fresh while it is under way. */
export function useSurvey(id: string) {
  return useSWR(key(id), (path) => request(SurveyAnswerSchema, path), {
    refreshInterval: (now) => (now?.state === 'surveying' ? ASKED_EVERY : 0),
    keepPreviousData: true,
  });
}

/** Shows an answer at once. */
function show(id: string, answer: SurveyAnswer): Promise<unknown> {
  return mutate(key(id), answer, { revalidate: false });
}

async function tell(id: string, rest: string, body: unknown): Promise<void> {
  await show(id, await request(SurveyAnswerSchema, address(id, rest), { body }));
}

/** The survey as it stands. */
export const getSurvey = (id: string): Promise<SurveyAnswer> =>
  request(SurveyAnswerSchema, key(id));

export const beginSurvey = (id: string): Promise<void> => tell(id, '/survey', {});
export const cancelSurvey = (id: string): Promise<void> => tell(id, '/survey/cancel', {});
export const setSurvey = (id: string, settings: SurveySettings): Promise<void> =>
  tell(id, '/survey/settings', settings);
export const dismiss = (id: string, ids: readonly string[], dismissed: boolean): Promise<void> =>
  tell(id, '/findings/dismiss', { ids, dismissed });

/** Outlines what lies at a place and adds it. @returns the finding's id */
export async function addFinding(id: string, at: readonly [number, number]): Promise<string> {
  const answer = await request(
    z.object({ id: z.uuid(), survey: SurveyAnswerSchema }),
    address(id, '/findings'),
    { body: { at } },
  );
  await show(id, answer.survey);
  return answer.id;
}

const SweptSchema = z.object({
  records: PictureRecordsSchema,
  survey: SurveyAnswerSchema,
  repairIds: z.array(z.uuid()),
});

/** Mends findings in one go. */
export async function sweep(id: string, version: number, ids: readonly string[]) {
  const answer = await request(SweptSchema, address(id, '/sweeps'), { body: { version, ids } });
  await show(id, answer.survey);
  return answer;
}

/** Takes a finding out of the sweep that mends it. */
export async function takeOut(id: string, version: number, finding: string, mend: boolean) {
  const answer = await request(SweptSchema, address(id, '/findings/take-out'), {
    body: { version, id: finding, mend },
  });
  await show(id, answer.survey);
  return answer;
}
