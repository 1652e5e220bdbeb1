import type { UnsurePlace } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { plainFill, shiftDonor } from '@tersum/document';
import { RequestProblem } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { NO_DONOR } from './donors.js';
import { dropOffers, findOffers, fromBothSides, takeOffer, walkOffers } from './offers.js';
import { benchOver } from './test-bench.js';
import { idOf, repairOf } from './test-records.js';
import { touchUp } from './touch-ups.js';
import { layTwin } from './twin.js';

jest.mock('../../api/pictures.js');
const server = jest.mocked(api);

const clone: Repair = repairOf(1, {
  method: { kind: 'clone', donor: shiftDonor(9, 0), other: null },
});
const offer = (dx: number, dy = 0) => ({ donor: shiftDonor(dx, dy), misfit: Math.abs(dx) });

/** The repair that was sent to be kept, or tried out, last. */
const kept = (): Repair => server.postChange.mock.lastCall![3].at(-1)!.after as Repair;
const tried = (): Repair => server.postPreview.mock.lastCall![2][0]!.after as Repair;
const donorIn = ({ method }: Repair) => 'donor' in method && method.donor;

const benchWith = (...repairs: Repair[]): Bench => benchOver(server, repairs);

beforeEach(() => jest.resetAllMocks());

describe('donors on offer', () => {
  test('are walked through both ways, shown as they go, and the one in sight is kept', async () => {
    const bench = benchWith(clone);
    server.findDonors.mockResolvedValueOnce([offer(10), offer(20), offer(30)]);
    await findOffers(bench, clone);
    expect(donorIn(tried())).toMatchObject({ dx: 10 });
    walkOffers(bench, -1);
    expect(donorIn(tried())).toMatchObject({ dx: 30 });
    walkOffers(bench, 1);
    walkOffers(bench, 1);
    expect(donorIn(tried())).toMatchObject({ dx: 20 });
    expect(takeOffer(bench)).toBe(true);
    await bench.change('', []);
    expect(donorIn(kept())).toMatchObject({ dx: 20 });
    expect(bench.store.getState().offers).toBeNull();
  });

  test('asked for widely may be turned, mirrored and scaled', async () => {
    const bench = benchWith(clone);
    server.findDonors.mockResolvedValue([offer(10)]);
    await findOffers(bench, clone);
    expect(server.findDonors.mock.lastCall![2]).toBeUndefined();
    await findOffers(bench, clone, true);
    expect(server.findDonors.mock.lastCall![2]).toMatchObject({ mirror: true });
    expect(bench.store.getState().offers!.wide).toBe(true);
  });

  test('that are none are told, and leave the repair as it was', async () => {
    const bench = benchWith(clone);
    server.findDonors.mockResolvedValueOnce([]);
    await findOffers(bench, clone);
    expect(bench.store.getState()).toMatchObject({ offers: null, notice: NO_DONOR });
    expect(walkOffers(bench, 1)).toBe(false);
    expect(takeOffer(bench)).toBe(false);
    expect(server.postChange).not.toHaveBeenCalled();
  });

  test('that come after they were put away stay away', async () => {
    const bench = benchWith(clone);
    let come: (list: ReturnType<typeof offer>[]) => void = () => undefined;
    server.findDonors.mockReturnValueOnce(new Promise((resolve) => (come = resolve)));
    const asked = findOffers(bench, clone);
    dropOffers(bench);
    come([offer(10)]);
    await asked;
    expect(bench.store.getState().offers).toBeNull();
    expect(server.postPreview).not.toHaveBeenCalled();
  });
});

describe('from both sides', () => {
  const other = (): unknown => (kept().method as { other: unknown }).other;

  test('the second donor is the best that lies on the other side', async () => {
    const bench = benchWith(clone);
    server.findDonors.mockResolvedValueOnce([offer(12), offer(-40, 3), offer(-50)]);
    await fromBothSides(bench, clone);
    expect(other()).toMatchObject({ dx: -40, dy: 3 });
    expect(donorIn(kept())).toMatchObject({ dx: 9 });
  });

  test('failing that it is the mirrored step, also when the server does not answer', async () => {
    const bench = benchWith(clone);
    server.findDonors.mockRejectedValueOnce(new RequestProblem(0, 'away'));
    await fromBothSides(bench, clone);
    expect(other()).toMatchObject({ dx: -9, dy: -0 });
  });

  test('a fill has no sides', async () => {
    const bench = benchWith(repairOf(1));
    await fromBothSides(bench, repairOf(1));
    expect(server.postChange).not.toHaveBeenCalled();
  });
});

describe('a twin', () => {
  const twin = {
    ...offer(-70),
    over: 'x' as const,
    axis: [
      [100, 0],
      [100, 50],
    ] as [[number, number], [number, number]],
  };

  test('is laid over as a piece, half see-through, its axis shown', async () => {
    const bench = benchWith(repairOf(1));
    server.findTwins.mockResolvedValueOnce([twin]);
    await layTwin(bench, repairOf(1));
    expect(kept()).toMatchObject({
      strength: 0.5,
      method: { kind: 'piece', donor: { dx: -70 }, matchTone: true },
    });
    expect(bench.store.getState().axis).toEqual({ repair: idOf(1), line: twin.axis });
  });

  test('that is not found is told', async () => {
    const bench = benchWith(repairOf(1));
    server.findTwins.mockResolvedValueOnce([]);
    await layTwin(bench, repairOf(1));
    expect(server.postChange).not.toHaveBeenCalled();
    expect(bench.store.getState().notice).toMatch(/No counterpart/);
  });
});

describe('touching up', () => {
  const place: UnsurePlace = { x: 40, y: 30, width: 14, confidence: 0.2 };

  test.each([
    ['clone', 'clone'],
    ['graft', 'graft'],
    ['fill', 'graft'],
  ] as const)(
    'advised to %s, a place is mended by %s from the donor found',
    async (advised, by) => {
      const bench = benchWith(repairOf(1));
      server.getAdvice.mockResolvedValueOnce({ advice: { method: advised }, facts: null } as never);
      server.findDonors.mockResolvedValueOnce([offer(33)]);
      await touchUp(bench, { repair: repairOf(1), place });
      expect(kept()).toMatchObject({
        site: { kind: 'dab', at: [40, 30] },
        width: 14,
        method: { kind: by, donor: { dx: 33 } },
      });
      // The tool looks for itself again afterwards.
      expect(bench.store.getState().tool.donor).toEqual({ kind: 'search' });
    },
  );

  test('deep inside a fill, with nothing to copy near by, it is filled once more', async () => {
    const bench = benchWith(repairOf(1));
    server.getAdvice.mockRejectedValueOnce(new RequestProblem(0, 'away'));
    server.findDonors.mockResolvedValueOnce([]);
    server.findGuides.mockResolvedValue([]);
    await touchUp(bench, { repair: repairOf(1), place });
    expect(kept().method.kind).toBe('fill');
    expect(kept().method).not.toEqual(plainFill(idOf(501)));
  });
});
