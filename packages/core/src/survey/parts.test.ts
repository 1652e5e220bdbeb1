import { setTimeout as after } from 'node:timers/promises';
import type { Halves } from '../raster/halves.js';
import { Cancelled } from '../task/task.js';
import { FINDING_KINDS } from './finding.js';
import type { SurveyPart, SurveyPartDone } from './parts.js';
import { candidatesBy, surveyPart } from './parts.js';
import { findingsFrom, survey } from './survey.js';
import { Scene } from './test-scenes.js';

const scene = new Scene(300, 220, 9);
for (let k = 0; k < 12; k++)
  scene.disc(scene.between(10, 289), scene.between(10, 209), 2, [246, 245, 243]);
const { picture } = scene;

/** Does parts after delays that differ, and keeps what was done in the order of being done. */
function unevenly(delay: (number: number) => number) {
  const done: string[] = [];
  let number = 0;
  const doer = async <P extends SurveyPart>(
    halves: Halves,
    part: P,
  ): Promise<SurveyPartDone<P>> => {
    await after(delay(number++));
    done.push(part.do);
    // As plain data, the way it comes from another thread.
    return structuredClone(surveyPart(halves, structuredClone(part))) as SurveyPartDone<P>;
  };
  return { doer, done };
}

test('parts done by whichever thread, in whichever order, come to the survey done at once', async () => {
  const shares: number[] = [];
  const { doer, done } = unevenly((k) => 30 - 3 * (k % 7));
  const candidates = await candidatesBy(doer, picture, FINDING_KINDS, {
    progress: (share) => shares.push(share),
  });
  const findings = findingsFrom(picture, candidates);
  expect(findings.length).toBeGreaterThanOrEqual(12);
  expect(findings).toEqual(survey(picture));
  // What needs others' results waits for all of them.
  expect(done.lastIndexOf('halve')).toBeLessThan(done.indexOf('study'));
  expect(done.lastIndexOf('study')).toBeLessThan(done.indexOf('gather'));
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(new Set(shares).size).toBe(done.length);
  expect(shares.at(-1)).toBeLessThan(1);
});

test('a cancelled survey begins no further part', async () => {
  const signal = { aborted: false };
  const { doer, done } = unevenly(() => 1);
  const stopping: typeof doer = async (halves, part) => {
    if (part.do === 'study') signal.aborted = true;
    return doer(halves, part);
  };
  await expect(candidatesBy(stopping, picture, FINDING_KINDS, { signal })).rejects.toThrow(
    Cancelled,
  );
  expect(done).not.toContain('gather');
});
