import type { Edit, Frame, Tone } from '@tersum/document';
import { NO_LEVELS } from '@tersum/core';
import * as finishApi from '../../api/finish.js';
import { RequestProblem } from '../../api/client.js';
import { createBench } from '../../bench/model/bench.js';
import { idOf, recordsOf } from '../../bench/model/test-records.js';
import { ACTS } from './acts.js';
import { Finish, isPicking } from './finish.js';

jest.mock('../../api/finish.js');
jest.mock('../../api/pictures.js');
const server = jest.mocked(finishApi);

const toneOf = (n: number, act: Tone['act'], more: Partial<Tone> = {}): Tone => ({
  id: idOf(n),
  position: n,
  enabled: true,
  strength: 1,
  mask: null,
  act,
  ...more,
});
const saturation = (n: number, more: Partial<Tone> = {}): Tone =>
  toneOf(n, { kind: 'saturation', amount: 0.2 }, more);
const levels = (n: number): Tone =>
  toneOf(n, { kind: 'levels', all: NO_LEVELS, channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS] });

/** A finish whose changes are noted and kept on the spot. */
function finishing(tones: readonly Tone[], frames: readonly Frame[] = []) {
  const bench = createBench(idOf(1), () => undefined);
  const put = (list: { tones: readonly Tone[]; frames: readonly Frame[] }): void =>
    bench.store.setState({
      records: { ...recordsOf([]), tones: [...list.tones], frames: [...list.frames] },
    });
  put({ tones, frames });
  const changes: { label: string; edits: readonly Edit[] }[] = [];
  const finish = new Finish({
    ...bench,
    change(label, edits) {
      changes.push({ label, edits });
      const { records } = bench.store.getState();
      const take = <T extends { id: string }>(list: readonly T[], entity: string): T[] => {
        const own = edits.filter((e) => e.entity === entity);
        const rest = list.filter((item) => !own.some((e) => e.id === item.id));
        return [...rest, ...own.flatMap((e) => (e.after ? [e.after as unknown as T] : []))];
      };
      put({ tones: take(records!.tones, 'tone'), frames: take(records!.frames, 'frame') });
      return Promise.resolve();
    },
  });
  return { finish, changes, bench };
}

beforeEach(() => jest.resetAllMocks());

describe('steps', () => {
  test('are listed in the order they work, the one in hand as it is being tried out', () => {
    const { finish } = finishing([saturation(7), levels(3)]);
    expect(finish.steps().map((t) => t.position)).toEqual([3, 7]);
    const tried = saturation(7, { strength: 0.4 });
    finish.tryOut(tried);
    expect(finish.steps()[1]).toBe(tried);
  });

  test('that are added lie on top, are open, and are told by name', async () => {
    const { finish, changes } = finishing([saturation(7)]);
    await finish.add('levels');
    const added = finish.steps().at(-1)!;
    expect(added.position).toBe(8);
    expect(finish.selected()).toEqual(added);
    expect(changes[0]!.label).toBe(`Add ${ACTS.levels.name.toLowerCase()}`);
  });

  test('of strokes are ready to be drawn', async () => {
    const { finish } = finishing([]);
    await finish.add('strokes');
    expect(finish.store.getState().hand).toBe('stroke');
    await finish.drawn([
      [1, 2],
      [3, 4],
    ]);
    const { act } = finish.selected()!;
    expect(act.kind === 'strokes' && act.strokes).toEqual([
      {
        points: [
          [1, 2],
          [3, 4],
        ],
        width: 120,
      },
    ]);
  });

  test.each(Object.keys(ACTS) as Tone['act']['kind'][])(
    'a fresh %s is a whole step of its kind',
    (kind) => {
      const { picture } = recordsOf([]);
      expect(ACTS[kind].fresh(picture).kind).toBe(kind);
      expect(ACTS[kind].name.length).toBeGreaterThan(2);
    },
  );

  test('change places with a neighbour; at the end of the stack nothing happens', async () => {
    const { finish, changes } = finishing([saturation(3), levels(7)]);
    await finish.move(idOf(3), 1);
    expect(finish.steps().map((t) => t.id)).toEqual([idOf(7), idOf(3)]);
    await finish.move(idOf(3), 1);
    await finish.move('nobody', -1);
    expect(changes).toHaveLength(1);
  });

  test('that are deleted are no longer open', async () => {
    const { finish } = finishing([saturation(3), levels(7)]);
    finish.select(idOf(3));
    await finish.remove(idOf(3));
    expect(finish.selected()).toBeNull();
    expect(finish.steps()).toHaveLength(1);
  });

  test('a newer try is not lost when an older one has been kept', async () => {
    const { finish } = finishing([saturation(3)]);
    const keeping = finish.keep(saturation(3, { strength: 0.5 }));
    const newer = saturation(3, { strength: 0.6 });
    finish.tryOut(newer);
    await keeping;
    expect(finish.store.getState().draft).toBe(newer);
  });
});

describe('where a step works', () => {
  const points: [number, number][] = [
    [10, 10],
    [40, 12],
    [30, 50],
  ];
  const masked = (mask: Tone['mask']) => {
    const made = finishing([saturation(3, { mask })]);
    made.finish.select(idOf(3));
    made.finish.set({ hand: 'mask', width: 44 });
    return made;
  };

  test('is drawn as an outline, which needs three points', async () => {
    const { finish, changes } = masked({
      kind: 'outline',
      inverted: true,
      feather: 5,
      points: [...points].reverse(),
    });
    await finish.drawn(points.slice(0, 2));
    expect(changes).toEqual([]);
    await finish.drawn(points);
    expect(finish.selected()!.mask).toEqual({
      kind: 'outline',
      inverted: true,
      feather: 5,
      points,
    });
  });

  test('is drawn as a gradient from its first point to its last', async () => {
    const { finish } = masked({ kind: 'gradient', inverted: false, from: [0, 0], to: [1, 1] });
    await finish.drawn(points);
    expect(finish.selected()!.mask).toMatchObject({ from: [10, 10], to: [30, 50] });
  });

  test('is painted, one stroke after the other', async () => {
    const { finish } = masked({ kind: 'painted', inverted: false, feather: 5, strokes: [] });
    await finish.drawn(points);
    await finish.drawn([[1, 1]]);
    expect(finish.selected()!.mask).toMatchObject({
      strokes: [
        { points, width: 44 },
        { points: [[1, 1]], width: 44 },
      ],
    });
  });

  test('nothing is drawn when no step is open', async () => {
    const { finish, changes } = finishing([saturation(3)]);
    finish.set({ hand: 'mask' });
    await finish.drawn(points);
    expect(changes).toEqual([]);
  });
});

describe('a colour taken from the picture', () => {
  test('is read after the steps before the open one, and makes the place neutral', async () => {
    const { finish, changes } = finishing([saturation(2), levels(3), saturation(7)]);
    finish.select(idOf(3));
    finish.set({ hand: 'grey' });
    const read = jest.fn(() => Promise.resolve([0.6, 0.5, 0.4]));
    finish.sight = { read };
    await finish.pick(5, 6);
    expect(read).toHaveBeenCalledWith(5, 6, [saturation(2)]);
    expect(changes[0]!.label).toBe('Take the grey from the picture');
    const { act } = finish.selected()!;
    expect(act.kind === 'levels' && act.channels[0]).not.toEqual(NO_LEVELS);
    expect(finish.store.getState().hand).toBe('pan');
  });

  test('gives the tint its hue, no stronger than tints are', async () => {
    const { finish } = finishing([toneOf(3, { kind: 'toning', hue: 0, chroma: 5 })]);
    finish.select(idOf(3));
    finish.set({ hand: 'tint' });
    finish.sight = { read: () => Promise.resolve([0.9, 0.2, 0.1]) };
    await finish.pick(5, 6);
    const { act } = finish.selected()!;
    expect(act).toMatchObject({ kind: 'toning', chroma: 40 });
    expect(act.kind === 'toning' && act.hue).toBeGreaterThan(20);
    expect(act.kind === 'toning' && act.hue).toBeLessThan(60);
  });

  test('of a grey picture is none: the person is told', async () => {
    const { finish, changes, bench } = finishing([levels(3)]);
    finish.select(idOf(3));
    finish.set({ hand: 'white' });
    finish.sight = { read: () => Promise.resolve([0.5]) };
    await finish.pick(5, 6);
    expect(changes).toEqual([]);
    expect(bench.store.getState().notice).toMatch(/no cast/);
  });

  test.each([
    ['tint', true],
    ['white', true],
    ['black', true],
    ['pan', false],
    ['stroke', false],
  ] as const)('%s takes one: %s', (hand, takes) => expect(isPicking(hand)).toBe(takes));
});

describe('what is measured', () => {
  const found = {
    all: { black: 0.1, white: 0.9, gamma: 1 },
    each: [1, 2, 3].map((k) => ({ black: k / 20, white: 1, gamma: 1 })),
  };

  test('levels of all channels, or of each: never both', async () => {
    const { finish } = finishing([levels(3)]);
    finish.select(idOf(3));
    server.measureLevels.mockResolvedValue(found as never);
    await finish.autoLevels(0.001, false);
    expect(finish.selected()!.act).toEqual({
      kind: 'levels',
      all: found.all,
      channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS],
    });
    await finish.autoLevels(0.001, true);
    expect(finish.selected()!.act).toEqual({
      kind: 'levels',
      all: NO_LEVELS,
      channels: found.each,
    });
  });

  test('a grey picture’s one channel stands for all three', async () => {
    const { finish } = finishing([levels(3)]);
    finish.select(idOf(3));
    server.measureLevels.mockResolvedValue({ ...found, each: [found.each[0]] } as never);
    await finish.autoLevels(0.001, true);
    const { act } = finish.selected()!;
    expect(act.kind === 'levels' && act.channels).toEqual([
      found.each[0],
      found.each[0],
      found.each[0],
    ]);
  });

  test('while it lasts it says so, and when it fails why', async () => {
    const { finish, bench } = finishing([]);
    const seen: (string | null)[] = [];
    finish.store.subscribe(({ busy }) => seen.push(busy));
    server.measureFade.mockRejectedValue(new RequestProblem(0, 'The server does not answer.'));
    await finish.undoFading();
    expect(seen).toEqual(['Measuring the fading', null]);
    expect(bench.store.getState().notice).toBe('The server does not answer.');
  });

  test('prints with an edge on every side are offered, and shown where there are several', async () => {
    const { finish } = finishing([]);
    const quad = (x: number) => [
      [x, 0],
      [x + 9, 0],
      [x + 9, 9],
      [x, 9],
    ];
    server.findPrints.mockResolvedValueOnce([
      { quad: quad(0), edges: 4 },
      { quad: quad(20), edges: 3 },
      { quad: quad(40), edges: 4 },
    ] as never);
    expect(await finish.findPrints()).toEqual([quad(0), quad(40)]);
    expect(finish.store.getState().prints).toHaveLength(2);
    server.findPrints.mockResolvedValueOnce([{ quad: quad(0), edges: 4 }] as never);
    expect(await finish.findPrints()).toHaveLength(1);
    expect(finish.store.getState().prints).toEqual([]);
  });
});

describe('the frame', () => {
  const quad: Frame['quad'] = [
    [0, 0],
    [90, 0],
    [90, 60],
    [0, 60],
  ];

  test('is one record: kept, changed and taken off', async () => {
    const { finish, changes } = finishing([]);
    await finish.keepFrame({ quad, width: 90, height: 60 }, 'Frame');
    const { id } = finish.frame()!;
    await finish.keepFrame({ quad, width: 45, height: 30 }, 'Smaller');
    expect(finish.frame()).toMatchObject({ id, width: 45 });
    await finish.keepFrame(null, 'Whole picture');
    expect(finish.frame()).toBeNull();
    expect(changes.map((c) => c.label)).toEqual(['Frame', 'Smaller', 'Whole picture']);
  });

  test('that was only tried out leaves nothing to take off', async () => {
    const { finish, changes } = finishing([]);
    finish.set({ frameDraft: { id: idOf(5), quad, width: 90, height: 60 } });
    expect(finish.frame()!.width).toBe(90);
    await finish.keepFrame(null, 'Whole picture');
    expect(finish.frame()).toBeNull();
    expect(changes).toEqual([]);
  });
});
