import type { GroundOffer, Repair, View } from '@tersum/document';
import type { Bench } from './bench.js';
import * as api from '../../api/pictures.js';
import {
  addGuide,
  askedFor,
  cutIntoPortions,
  dropVariants,
  findGuides,
  findVariants,
  takeVariant,
  walkVariants,
  withGrain,
} from './fills.js';
import { hideGrounds, isAllowed, scribble, showGrounds, toggleGround } from './grounds.js';
import { benchOver } from './test-bench.js';
import { idOf, recordsOf, repairOf } from './test-records.js';
import { touchUpsOf } from './touch-ups.js';

jest.mock('../../api/pictures.js');
const server = jest.mocked(api);

/** What was sent to be kept last: its label and its edits. */
const kept = (): { label: string; edits: readonly { id: string; after: unknown }[] } => {
  const [, , label, edits] = server.postChange.mock.lastCall!;
  return { label, edits };
};
const keptFill = () =>
  (kept().edits[0]!.after as Repair).method as Extract<Repair['method'], { kind: 'fill' }>;

const benchWith = (repairs: readonly Repair[]): Bench => benchOver(server, repairs);

beforeEach(() => jest.resetAllMocks());

test('a fill asked for something else is searched anew, and keeps what was not asked', () => {
  const before = repairOf(1);
  const after = askedFor(before, { mirror: true });
  expect(after.method).toMatchObject({ mirror: true, seed: 1, lean: 'balanced' });
  expect(after.method.kind === 'fill' && after.method.search).not.toBe(idOf(501));
  const clone: Repair = { ...before, method: { kind: 'push' } };
  expect(askedFor(clone, { mirror: true })).toBe(clone);
});

test('a ground may be copied until its own outline is forbidden', () => {
  const ground = {
    outline: [
      [0, 0],
      [40, 0],
      [40, 40],
    ] as [number, number][],
    area: 0.2,
    ring: 0.4,
    colour: [1, 2, 3] as [number, number, number],
  };
  const repair = repairOf(1);
  expect(isAllowed(repair, ground)).toBe(true);
  const shape = { kind: 'outline' as const, points: ground.outline };
  const forbidden = askedFor(repair, { areas: [{ allow: false, shape, width: 1 }] });
  expect(isAllowed(forbidden, ground)).toBe(false);
  expect(
    isAllowed(forbidden, {
      ...ground,
      outline: [
        [9, 9],
        [40, 0],
        [40, 40],
      ],
    }),
  ).toBe(true);
});

test('unsure places are to be touched up until a later repair lies on them', () => {
  const place = { x: 50, y: 50, width: 12, confidence: 0.2 };
  const other = { x: 150, y: 90, width: 12, confidence: 0.3 };
  const view = { version: 1, unsure: { [idOf(1)]: [place, other] } } as unknown as View;
  const one = repairOf(1);
  expect(touchUpsOf(recordsOf([one]), view)).toEqual([
    { repair: one, place },
    { repair: one, place: other },
  ]);
  const touched = recordsOf([one, repairOf(2, { site: { kind: 'dab', at: [52, 50] } })]);
  expect(touchUpsOf(touched, view).map((t) => t.place)).toEqual([other]);
  const earlier = recordsOf([
    { ...repairOf(2, { site: { kind: 'dab', at: [52, 50] } }), position: 0 },
    one,
  ]);
  expect(touchUpsOf(earlier, view)).toHaveLength(2);
  expect(touchUpsOf(recordsOf([one]), null)).toEqual([]);
});

describe('variants', () => {
  const variant = (seed: number, score: number) => ({
    search: idOf(600 + seed),
    seed,
    lean: 'balanced' as const,
    score,
    figures: {},
  });
  const offered = (...list: ReturnType<typeof variant>[]): void => {
    server.findVariants.mockResolvedValueOnce(list as never);
  };

  test('the best is tried out first, keys walk round, and what is chosen is kept', async () => {
    const bench = benchWith([repairOf(1)]);
    offered(variant(2, 5), variant(3, 1), variant(4, 9));
    await findVariants(bench, repairOf(1));
    const { variants } = bench.store.getState();
    expect(variants!.list!.map((v) => v.seed)).toEqual([3, 2, 4]);
    const tried = (): unknown => server.postPreview.mock.lastCall![2][0]!.after;
    expect(tried()).toMatchObject({ method: { seed: 3, search: idOf(603) } });
    expect(walkVariants(bench, -1)).toBe(true);
    expect(tried()).toMatchObject({ method: { seed: 4 } });
    walkVariants(bench, 1);
    walkVariants(bench, 1);
    expect(tried()).toMatchObject({ method: { seed: 2 } });
    expect(takeVariant(bench)).toBe(true);
    await bench.change('', []);
    expect(kept().label).toBe('Choose a variant');
    expect(keptFill()).toMatchObject({ seed: 2, search: idOf(602) });
    expect(bench.store.getState().variants).toBeNull();
  });

  test('more are added to those that are known, best first', async () => {
    const bench = benchWith([repairOf(1)]);
    offered(variant(2, 5));
    await findVariants(bench, repairOf(1));
    offered(variant(3, 1));
    await findVariants(bench, repairOf(1));
    expect(server.findVariants.mock.calls.map(([, , from]) => from)).toEqual([1, 2]);
    expect(bench.store.getState().variants!.list!.map((v) => v.seed)).toEqual([3, 2]);
  });

  test('put away while they are computed, they do not come back', async () => {
    const bench = benchWith([repairOf(1)]);
    let come: (list: never) => void = () => undefined;
    server.findVariants.mockReturnValueOnce(new Promise((resolve) => (come = resolve)) as never);
    const asked = findVariants(bench, repairOf(1));
    dropVariants(bench);
    expect(server.findVariants.mock.lastCall![3].aborted).toBe(true);
    come([variant(2, 1)] as never);
    await asked;
    expect(bench.store.getState().variants).toBeNull();
    expect(server.postPreview).not.toHaveBeenCalled();
  });

  test('without any there is nothing to walk through or to take', () => {
    const bench = benchWith([repairOf(1)]);
    expect(walkVariants(bench, 1)).toBe(false);
    expect(takeVariant(bench)).toBe(false);
    expect(server.postChange).not.toHaveBeenCalled();
  });

  test('when they cannot be computed the person is told why', async () => {
    const bench = benchWith([repairOf(1)]);
    server.findVariants.mockRejectedValueOnce(new Error('anything'));
    await findVariants(bench, repairOf(1));
    expect(bench.store.getState().variants).toBeNull();
    expect(bench.store.getState().notice).toMatch(/nothing that was saved is lost/);
  });
});

describe('guides and portions', () => {
  test('a drawn guide can be bent in its middle; two points stay a straight one', async () => {
    const bench = benchWith([repairOf(1)]);
    addGuide(bench, repairOf(1), [
      [0, 0],
      [5, 1],
      [10, 4],
      [15, 9],
      [20, 16],
    ]);
    await bench.change('', []);
    expect(keptFill().guides).toEqual([
      {
        points: [
          [0, 0],
          [10, 4],
          [20, 16],
        ],
      },
    ]);
    addGuide(bench, repairOf(1), [
      [0, 0],
      [9, 9],
    ]);
    await bench.change('', []);
    expect(keptFill().guides[0]!.points).toHaveLength(2);
    addGuide(bench, repairOf(1), [[3, 3]]);
    expect(server.postChange).toHaveBeenCalledTimes(2);
  });

  test('where no edge goes on the hand is ready to draw one', async () => {
    const bench = benchWith([repairOf(1)]);
    server.findGuides.mockResolvedValueOnce([]);
    await findGuides(bench, repairOf(1));
    expect(bench.store.getState().fillHand).toBe('guide');
    expect(bench.store.getState().notice).toMatch(/Draw a guide/);
  });

  test('portions lie between the repair and what is above it, the first in its place', async () => {
    const [one, above] = [repairOf(1), repairOf(2)];
    const bench = benchWith([one, above]);
    const outline = (x: number): [number, number][] => [
      [x, 0],
      [x + 9, 0],
      [x, 9],
    ];
    server.findPortions.mockResolvedValueOnce([outline(0), outline(20), outline(40)]);
    await cutIntoPortions(bench, one);
    const { label, edits } = kept();
    expect(label).toBe('Cut into 3 portions');
    const made = edits.map((e) => e.after as Repair);
    expect(made[0]!.id).toBe(one.id);
    expect(new Set(made.map((r) => r.id)).size).toBe(3);
    expect(made.map((r) => r.position)).toEqual([1, 1 + 1 / 3, 1 + 2 / 3]);
    const searches = made.map((r) => r.method.kind === 'fill' && r.method.search);
    expect(new Set(searches).size).toBe(3);
    expect(made[2]).toMatchObject({
      site: { kind: 'outline', points: outline(40) },
      reason: 'Portion 3 of 3',
    });
  });

  test('a site of one portion stays whole, and the person is told', async () => {
    const bench = benchWith([repairOf(1)]);
    server.findPortions.mockResolvedValueOnce([
      [
        [0, 0],
        [9, 0],
        [0, 9],
      ],
    ]);
    await cutIntoPortions(bench, repairOf(1));
    expect(server.postChange).not.toHaveBeenCalled();
    expect(bench.store.getState().notice).toMatch(/best filled whole/);
  });

  test('grain given back needs no new search', () => {
    const bare = repairOf(1);
    expect(withGrain(bare).method).toEqual({ ...bare.method, grain: 1 });
    expect(withGrain(bare, false).method).toEqual({ ...bare.method, grain: 0 });
  });
});

describe('grounds', () => {
  const ground = (x: number, area: number, ring: number): GroundOffer => ({
    outline: [
      [x, 0],
      [x + 30, 0],
      [x, 30],
    ],
    area,
    ring,
    colour: [1, 2, 3],
  });
  const [sky, wall, boat] = [ground(0, 0.5, 0.4), ground(40, 0.3, 0.3), ground(80, 0.1, 0.001)];
  const allows = (): [number, boolean][] =>
    keptFill().areas.map(({ shape, allow }) => [
      shape.kind === 'outline' ? shape.points[0]![0] : NaN,
      allow,
    ]);

  test('those that do not touch the ring are forbidden at first, larger ones told first', async () => {
    const bench = benchWith([repairOf(1)]);
    server.findGrounds.mockResolvedValueOnce([boat, sky, wall]);
    await showGrounds(bench, repairOf(1));
    expect(kept().label).toBe('Allow the likely grounds');
    expect(allows()).toEqual([
      [0, true],
      [40, true],
      [80, false],
    ]);
  });

  test('when all are likely, or a choice was made already, nothing is changed', async () => {
    const bench = benchWith([repairOf(1)]);
    server.findGrounds.mockResolvedValue([sky, wall]);
    await showGrounds(bench, repairOf(1));
    const chosen = askedFor(repairOf(1), {
      areas: [{ allow: true, shape: { kind: 'outline', points: sky.outline }, width: 1 }],
    });
    server.findGrounds.mockResolvedValue([sky, boat]);
    await showGrounds(bench, chosen);
    expect(server.postChange).not.toHaveBeenCalled();
    expect(bench.store.getState().grounds!.list).toHaveLength(2);
  });

  test('a click forbids one and keeps the others and what was scribbled', async () => {
    const scribbled = askedFor(repairOf(1), {
      areas: [{ allow: false, shape: { kind: 'stroke', points: [[5, 5]] }, width: 12 }],
    });
    const bench = benchWith([scribbled]);
    bench.store.setState({ grounds: { repair: idOf(1), list: [wall, sky] } });
    toggleGround(bench, scribbled, wall);
    await bench.change('', []);
    expect(kept().label).toBe('Forbid a ground');
    expect(allows().slice(0, 2)).toEqual([
      [0, true],
      [40, false],
    ]);
    expect(keptFill().areas.at(-1)).toEqual(
      scribbled.method.kind === 'fill' && scribbled.method.areas[0],
    );
  });

  test('a scribble is as wide as the tool and comes last', async () => {
    const bench = benchWith([repairOf(1)]);
    bench.setTool({ width: 44 });
    scribble(
      bench,
      repairOf(1),
      [
        [1, 2],
        [3, 4],
      ],
      true,
    );
    await bench.change('', []);
    expect(keptFill().areas).toEqual([
      {
        allow: true,
        shape: {
          kind: 'stroke',
          points: [
            [1, 2],
            [3, 4],
          ],
        },
        width: 44,
      },
    ]);
  });

  test('hidden grounds that come late stay hidden', async () => {
    const bench = benchWith([repairOf(1)]);
    let come: (list: GroundOffer[]) => void = () => undefined;
    server.findGrounds.mockReturnValueOnce(new Promise((resolve) => (come = resolve)));
    const asked = showGrounds(bench, repairOf(1));
    hideGrounds(bench);
    come([sky, boat]);
    await asked;
    expect(bench.store.getState().grounds).toBeNull();
    expect(server.postChange).not.toHaveBeenCalled();
  });
});
