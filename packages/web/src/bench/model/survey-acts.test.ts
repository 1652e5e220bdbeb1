import type { DocketFinding, Repair } from '@tersum/document';
import * as pictures from '../../api/pictures.js';
import { RequestProblem } from '../../api/client.js';
import * as api from '../../api/survey.js';
import type { Bench } from './bench.js';
import { createBench } from './bench.js';
import {
  addFindingAt,
  dismissFinding,
  markArea,
  mendFindings,
  showFinding,
  takeOutFinding,
} from './survey-acts.js';
import { idOf, recordsOf, repairOf } from './test-records.js';

jest.mock('../../api/pictures.js');
jest.mock('../../api/survey.js');
const server = jest.mocked(api);

const finding = (n: number, more: Partial<DocketFinding> = {}): DocketFinding =>
  ({
    id: idOf(n),
    kind: 'specks',
    box: { x: 100, y: 60, width: 20, height: 10 },
    ...more,
  }) as DocketFinding;

function surveyed(): Bench {
  const bench = createBench(idOf(1), () => undefined);
  bench.store.setState({
    records: recordsOf([]),
    table: { width: 800, height: 600 },
    viewport: { x: 0, y: 0, zoom: 0.5, turn: 0 },
  });
  return bench;
}
const settings = { subject: null, areas: [] };

beforeEach(() => jest.resetAllMocks());

test('a finding is brought to the middle, as large as it can be judged, no larger than twice', () => {
  const bench = surveyed();
  showFinding(bench, finding(5));
  expect(bench.store.getState()).toMatchObject({
    finding: idOf(5),
    viewport: { x: 110, y: 65, zoom: 2 },
  });
  showFinding(bench, finding(6, { box: { x: 0, y: 0, width: 1600, height: 600 } }));
  expect(bench.store.getState().viewport!.zoom).toBeCloseTo(0.3, 6);
  showFinding(bench, finding(7, { box: { x: 0, y: 0, width: 90_000, height: 10 } }));
  expect(bench.store.getState().viewport!.zoom).toBe(0.1);
});

test('a sweep takes all findings at once, from the version that lies there', async () => {
  const bench = surveyed();
  server.sweep.mockResolvedValueOnce({
    records: recordsOf([repairOf(3)], { version: 2 }),
  } as never);
  await mendFindings(bench, [finding(5), finding(6)]);
  expect(server.sweep).toHaveBeenCalledWith(idOf(1), 1, [idOf(5), idOf(6)]);
  expect(bench.store.getState().records!.repairs).toHaveLength(1);
});

test('a sweep that is refused brings the newest records and says why', async () => {
  const bench = surveyed();
  server.sweep.mockRejectedValueOnce(new RequestProblem(409, 'Somebody changed this picture.'));
  jest.mocked(pictures).getRecords.mockResolvedValue(recordsOf([repairOf(4)], { version: 9 }));
  jest.mocked(pictures).getView.mockRejectedValue(new RequestProblem(0, 'away'));
  await mendFindings(bench, [finding(5)]);
  const { records, computing } = bench.store.getState();
  expect(records!.picture.version).toBe(9);
  expect(computing).toBe(0);
});

test('a finding taken out of a sweep is open as a repair of its own; left out, nothing is', async () => {
  const bench = surveyed();
  const own: Repair = repairOf(8);
  server.takeOut.mockResolvedValueOnce({
    records: recordsOf([own], { version: 2 }),
    repairIds: [own.id],
  } as never);
  await takeOutFinding(bench, finding(5), true);
  expect(bench.store.getState()).toMatchObject({ selected: own.id, finding: null });
  bench.set({ selected: null });
  server.takeOut.mockResolvedValueOnce({
    records: recordsOf([], { version: 3 }),
    repairIds: [null],
  } as never);
  await takeOutFinding(bench, finding(5), false);
  expect(server.takeOut.mock.lastCall![3]).toBe(false);
  expect(bench.store.getState().selected).toBeNull();
});

test('dismissing goes on to the next open one, and ends where there is none', async () => {
  const bench = surveyed();
  server.dismiss.mockResolvedValue(undefined as never);
  await dismissFinding(bench, finding(5), true, finding(6));
  expect(bench.store.getState().finding).toBe(idOf(6));
  expect(server.dismiss).toHaveBeenCalledWith(idOf(1), [idOf(5)], true);
  await dismissFinding(bench, finding(6), true, undefined);
  expect(bench.store.getState().finding).toBeNull();
});

describe('an area that is marked', () => {
  const points = Array.from({ length: 1000 }, (_, k): [number, number] => [k, k % 7]);

  test('is kept with no more points than are needed, beside those that were', async () => {
    const area = { kind: 'specks' as const, only: true, outline: [] };
    server.getSurvey.mockResolvedValueOnce({ settings: { ...settings, areas: [area] } } as never);
    await markArea(surveyed(), { kind: 'lines', only: false } as never, points);
    const { areas } = server.setSurvey.mock.lastCall![1] as { areas: { outline: unknown[] }[] };
    expect(areas).toHaveLength(2);
    expect(areas[1]).toMatchObject({ kind: 'lines', only: false });
    expect(areas[1]!.outline.length).toBeLessThanOrEqual(400);
    expect(areas[1]!.outline.length).toBeGreaterThan(200);
  });

  test('as the subject takes the place of the one before', async () => {
    server.getSurvey.mockResolvedValueOnce({
      settings: { ...settings, subject: [[1, 1]] },
    } as never);
    await markArea(surveyed(), 'subject', points.slice(0, 5));
    expect(server.setSurvey.mock.lastCall![1]).toMatchObject({ subject: points.slice(0, 5) });
  });

  test('of two points is none', async () => {
    await markArea(surveyed(), 'subject', points.slice(0, 2));
    expect(server.getSurvey).not.toHaveBeenCalled();
  });
});

test('a click adds what lies there and selects it; where nothing does it is said', async () => {
  const bench = surveyed();
  bench.set({ addingFinding: true });
  server.addFinding.mockResolvedValueOnce(idOf(7) as never);
  await addFindingAt(bench, [3, 4]);
  expect(bench.store.getState()).toMatchObject({ finding: idOf(7), addingFinding: false });
  server.addFinding.mockRejectedValueOnce(new RequestProblem(422, 'Nothing stands out there.'));
  await addFindingAt(bench, [3, 4]);
  expect(bench.store.getState().notice).toBe('Nothing stands out there.');
});
