import { setTimeout as after } from 'node:timers/promises';
import type { Halves } from '../raster/halves.js';
import { Cancelled } from '../task/task.js';
import { FINDING_KINDS } from './finding.js';
import { GATHERINGS, gathersFrom } from './gather.js';
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
  const done: SurveyPart[] = [];
  let number = 0;
  const doer = async <P extends SurveyPart>(
    halves: Halves,
    part: P,
  ): Promise<SurveyPartDone<P>> => {
    await after(delay(number++));
    done.push(part);
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
  const order = done.map((part) => part.do);
  expect(order.lastIndexOf('halve')).toBeLessThan(order.indexOf('study'));
  for (const of of GATHERINGS) {
    const own = done.findIndex((part) => part.do === 'gather' && part.of === of);
    const last = done.findLastIndex(
      (part) => part.do === 'study' && part.study.of.some((what) => gathersFrom(of, what)),
    );
    expect(last).toBeGreaterThanOrEqual(0);
    expect(own).toBeGreaterThan(last);
  }
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(new Set(shares).size).toBe(done.length);
  expect(shares.at(-1)).toBeLessThan(1);
});

test('what is gathered waits for none but its own studies', async () => {
  const { doer } = unevenly(() => 1);
  let lines = (): void => {};
  const gathering = new Promise<void>((resolve) => (lines = resolve));
  const candidates = await candidatesBy(
    async (halves, part) => {
      if (part.do === 'gather' && part.of === 'lines') lines();
      if (part.do === 'study' && part.study.of.includes('specks')) await gathering;
      return doer(halves, part);
    },
    picture,
    FINDING_KINDS,
  );
  expect(findingsFrom(picture, candidates)).toEqual(survey(picture));
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
  expect(done.map((part) => part.do)).not.toContain('gather');
});
