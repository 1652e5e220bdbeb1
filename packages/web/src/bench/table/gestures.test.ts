import { shiftDonor } from '@tersum/document';
import type { Repair, Site } from '@tersum/document';
import * as api from '../../api/pictures.js';
import type { Bench } from '../model/bench.js';
import { benchOver } from '../model/test-bench.js';
import { idOf, repairOf } from '../model/test-records.js';
import { gesturesOn } from './gestures.js';

jest.mock('../../api/pictures.js');
jest.mock('./useWheelZoom.js', () => ({ useWheelZoom: jest.fn() }));
const server = jest.mocked(api);

const clone = repairOf(1, {
  site: { kind: 'dab', at: [50, 50] },
  method: { kind: 'clone', donor: shiftDonor(30, -10), other: null },
});

let bench: Bench;
let on: ReturnType<typeof gesturesOn>;
let mended: jest.SpyInstance<Promise<void>, [site: Site, width?: number]>;
beforeEach(() => {
  jest.resetAllMocks();
  bench = benchOver(server, [clone]);
  // Two screen px a picture px, the picture's 0, 0 in the table's corner.
  bench.set({
    selected: null,
    table: { width: 600, height: 400 },
    viewport: { x: 150, y: 100, zoom: 2, turn: 0 },
  });
  mended = jest.spyOn(bench, 'mend').mockResolvedValue();
  on = gesturesOn(bench);
});

const state = () => bench.store.getState();
const settled = () => new Promise((done) => setTimeout(done, 0));

/** A pointer's event at a place of the picture. */
function at(x: number, y: number, button = 0): Parameters<typeof on.onPointerDown>[0] {
  return {
    button,
    pointerId: 1,
    clientX: 10 + 2 * x,
    clientY: 20 + 2 * y,
    currentTarget: {
      focus: jest.fn(),
      setPointerCapture: jest.fn(),
      getBoundingClientRect: () => ({ left: 10, top: 20 }),
    },
  } as unknown as Parameters<typeof on.onPointerDown>[0];
}

function drag(...points: readonly (readonly [number, number])[]): void {
  const [first, ...others] = points;
  on.onPointerDown(at(...first!));
  for (const point of others) on.onPointerMove(at(...point));
  on.onPointerUp();
}

describe('drawing', () => {
  test('a stroke is mended when it is let go, without the points in between that say nothing', () => {
    drag([20, 30], [20.3, 30.2], [30, 30], [40, 36]);
    expect(mended).toHaveBeenCalledTimes(1);
    expect(mended.mock.calls[0]![0]).toEqual({
      kind: 'stroke',
      points: [
        [20, 30],
        [30, 30],
        [40, 36],
      ],
    });
    expect(state().draft).toBeNull();
  });

  test('a stroke that went nowhere is a dab', () => {
    drag([20, 30]);
    expect(mended).toHaveBeenCalledWith({ kind: 'dab', at: [20, 30] });
  });

  test('a dab is mended as it is pressed', () => {
    bench.setTool({ shape: 'dab' });
    on.onPointerDown(at(70, 80));
    expect(mended).toHaveBeenCalledWith({ kind: 'dab', at: [70, 80] });
  });

  test('a rectangle may be drawn from any of its corners', () => {
    bench.setTool({ shape: 'rectangle' });
    drag([90, 70], [40, 30], [50, 35]);
    expect(mended).toHaveBeenCalledWith({
      kind: 'rectangle',
      x: 50,
      y: 35,
      width: 40,
      height: 35,
    });
  });

  test('an outline is dragged round, or set corner by corner', () => {
    bench.setTool({ shape: 'outline' });
    drag([20, 20], [60, 20], [60, 60]);
    expect(mended.mock.calls[0]![0]).toMatchObject({ kind: 'outline' });
    mended.mockClear();
    for (const corner of [
      [20, 20],
      [60, 20],
      [60, 60],
    ] as const)
      drag(corner);
    expect(mended).not.toHaveBeenCalled();
    expect(state().draft!.site).toEqual({
      kind: 'outline',
      points: [
        [20, 20],
        [60, 20],
        [60, 60],
      ],
    });
  });

  test('what is broken off leaves nothing behind', () => {
    on.onPointerDown(at(20, 30));
    on.onPointerMove(at(60, 30));
    expect(state().draft).not.toBeNull();
    on.onPointerCancel();
    on.onPointerUp();
    expect(state().draft).toBeNull();
    expect(mended).not.toHaveBeenCalled();
  });

  test('a second finger does not disturb the first', () => {
    on.onPointerDown(at(20, 30));
    on.onPointerDown(at(200, 150));
    on.onPointerMove(at(60, 30));
    on.onPointerUp();
    expect((mended.mock.calls[0]![0] as { points: unknown[] }).points).toEqual([
      [20, 30],
      [60, 30],
    ]);
  });
});

describe('moving about', () => {
  test.each([1, 2])('button %s pans, whatever is drawn', (button) => {
    on.onPointerDown(at(100, 100, button));
    on.onPointerMove(at(110, 95));
    on.onPointerUp();
    expect(state().viewport).toMatchObject({ x: 140, y: 105 });
    expect(mended).not.toHaveBeenCalled();
  });

  test('the pointer’s place is told while it is over the table', () => {
    on.onPointerMove(at(33, 44));
    expect(state().pointer).toEqual([33, 44]);
    on.onPointerLeave();
    expect(state().pointer).toBeNull();
  });
});

describe('picking', () => {
  const kept = async (): Promise<Repair> => {
    await settled();
    return (server.postChange.mock.calls.at(-1)![3] as { after: Repair }[])[0]!.after;
  };

  test('a click opens the repair under it, one beside it closes it', () => {
    bench.setTool({ shape: 'pick' });
    drag([52, 48]);
    expect(state().selected).toBe(idOf(1));
    drag([250, 150]);
    expect(state().selected).toBeNull();
  });

  test('the open one is dragged to another place and kept there', async () => {
    bench.set({ selected: idOf(1) });
    drag([50, 50], [60, 55], [70, 62]);
    expect((await kept()).site).toEqual({ kind: 'dab', at: [70, 62] });
    expect(server.postPreview).toHaveBeenCalled();
  });

  test('a click names the open one’s donor when one is to be named', async () => {
    bench.set({ selected: idOf(1), pickingDonor: true });
    drag([90, 20]);
    expect((await kept()).method).toMatchObject({ donor: { dx: 40, dy: -30 } });
    expect(state().pickingDonor).toBe(false);
  });

  test('with none open it is the next one’s, which then copies', () => {
    bench.set({ pickingDonor: true });
    bench.setTool({ method: 'fill' });
    drag([90, 20]);
    expect(state().tool).toMatchObject({
      method: 'clone',
      donor: { kind: 'place', at: [90, 20] },
    });
  });
});
