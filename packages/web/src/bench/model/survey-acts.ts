import type { Point } from '@tersum/core';
import type { DocketFinding, PictureRecords } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/survey.js';
import { workClock } from '../../work/useWorkClock.js';
import type { Bench } from './bench.js';
import type { Marking } from './state.js';

/** Brings a finding to the middle of the table, large enough to be judged, and selects it. */
export function showFinding(bench: Bench, finding: DocketFinding): void {
  const { viewport, table } = bench.store.getState();
  bench.set({ finding: finding.id, selected: null, also: [] });
  if (!viewport) return;
  const { x, y, width, height } = finding.box;
  const fits = 0.6 * Math.min(table.width / width, table.height / height);
  bench.set({
    viewport: {
      ...viewport,
      x: x + width / 2,
      y: y + height / 2,
      zoom: Math.max(0.1, Math.min(2, fits)),
    },
  });
}

/** Does something with the survey; what goes wrong is said. */
export async function trySurvey(bench: Bench, act: () => Promise<unknown>): Promise<void> {
  try {
    await act();
  } catch (error) {
    bench.set({ notice: messageOf(error) });
  }
}

/** Mends findings in one sweep. */
export function mendFindings(bench: Bench, findings: readonly DocketFinding[]): Promise<void> {
  const { pictureId } = bench.store.getState();
  const ids = findings.map(({ id }) => id);
  bench.set({ computing: 0, finding: null });
  const [first] = findings;
  // Of mixed kinds nobody can say which took how long.
  if (first && findings.every((f) => f.kind === first.kind))
    workClock()?.mended(first.kind, findings.length);
  return bench.move(async (version): Promise<PictureRecords> => {
    const { records } = await api.sweep(pictureId, version, ids);
    return records;
  });
}

/** Opens one finding of a sweep as a repair of its own, or leaves it as it is in the picture. */
export async function takeOutFinding(
  bench: Bench,
  finding: DocketFinding,
  mend: boolean,
): Promise<void> {
  const { pictureId } = bench.store.getState();
  let own: string | undefined;
  await bench.move(async (version) => {
    const answer = await api.takeOut(pictureId, version, finding.id, mend);
    own = answer.repairIds[0];
    return answer.records;
  });
  if (own) bench.set({ selected: own, finding: null, also: [] });
}

/** Keeps a finding as it is, or brings it back; the next open one is shown. */
export function dismissFinding(
  bench: Bench,
  finding: DocketFinding,
  dismissed: boolean,
  next: DocketFinding | undefined,
): Promise<void> {
  const { pictureId } = bench.store.getState();
  if (next) showFinding(bench, next);
  else bench.set({ finding: null });
  return trySurvey(bench, () => api.dismiss(pictureId, [finding.id], dismissed));
}

/** Points of an outline that are kept. */
const MOST_POINTS = 400;

/** Keeps an outline: where alone a kind is looked for or is left alone, or the subject. */
export function markArea(bench: Bench, marking: Marking, points: readonly Point[]): Promise<void> {
  const { pictureId } = bench.store.getState();
  const each = Math.ceil(points.length / MOST_POINTS);
  const outline = points.filter((_, k) => k % each === 0).map(([x, y]): [number, number] => [x, y]);
  if (outline.length < 3) return Promise.resolve();
  return trySurvey(bench, async () => {
    const { settings } = await api.getSurvey(pictureId);
    await api.setSurvey(
      pictureId,
      marking === 'subject'
        ? { ...settings, subject: outline }
        : { ...settings, areas: [...settings.areas, { ...marking, outline }] },
    );
  });
}

/** Adds what lies at a place. */
export function addFindingAt(bench: Bench, at: Point): Promise<void> {
  const { pictureId } = bench.store.getState();
  bench.set({ addingFinding: false });
  return trySurvey(bench, async () => {
    const finding = await api.addFinding(pictureId, [at[0], at[1]]);
    bench.set({ finding, selected: null, also: [] });
  });
}
