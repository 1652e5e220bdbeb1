import type { Repair } from '@tersum/document';
import { shiftDonor } from '@tersum/document';
import * as api from '../api/pictures.js';
import { keyDown, keysLeft, keyUp } from './keys.js';
import type { Bench } from './model/bench.js';
import { benchOver } from './model/test-bench.js';
import { idOf, recordsOf, repairOf } from './model/test-records.js';

jest.mock('../api/pictures.js');
const server = jest.mocked(api);

const clone = repairOf(1, {
  method: { kind: 'clone', donor: shiftDonor(30, -10), other: null },
});
const TABLE = { width: 800, height: 600 };

let bench: Bench;
beforeEach(() => {
  jest.resetAllMocks();
  bench = benchOver(server, [clone, repairOf(2), repairOf(3)]);
  bench.set({ table: TABLE, viewport: { x: 150, y: 100, zoom: 2, turn: 0 } });
});

/** Presses a key on the table, or on something that answers to selectors. */
function press(
  key: string,
  held: Partial<KeyboardEvent> = {},
  on: readonly string[] = [],
): boolean {
  const matches = (selector: string): boolean => selector.split(', ').some((s) => on.includes(s));
  const event = {
    key,
    target: { matches, closest: (s: string) => (matches(s) ? {} : null) },
    preventDefault: jest.fn(),
    ...held,
  } as unknown as KeyboardEvent;
  keyDown(bench, event);
  return jest.mocked(event.preventDefault).mock.calls.length > 0;
}
const state = () => bench.store.getState();
const settled = () => new Promise((done) => setTimeout(done, 0));
/** The repair a change on the server was asked to keep last. */
async function kept(): Promise<Repair> {
  await settled();
  const edits = server.postChange.mock.calls.at(-1)![3] as { after: Repair }[];
  return edits[0]!.after;
}

describe('methods and widths', () => {
  test.each([
    ['1', 'clone'],
    ['2', 'graft'],
    ['3', 'patch'],
    ['4', 'fill'],
    ['5', 'piece'],
    ['6', 'give back'],
    ['7', 'push'],
  ])('%s chooses %s', (key, method) => {
    expect(press(key)).toBe(true);
    expect(state().tool.method).toBe(method);
  });

  test('commas and full stops change the width by steps that grow with it', () => {
    bench.setTool({ width: 100 });
    press('.');
    expect(state().tool.width).toBe(115);
    press(',');
    press(',');
    expect(state().tool.width).toBeLessThan(100);
    bench.setTool({ width: 1 });
    press(',');
    expect(state().tool.width).toBe(1);
  });

  test('softness goes in twentieths and stays within 0 and 1', () => {
    bench.setTool({ softness: 0.95 });
    press("'");
    press("'");
    expect(state().tool.softness).toBe(1);
    press(';');
    expect(state().tool.softness).toBe(0.95);
  });
});

describe('donors', () => {
  test('Alt and arrows move the donor by a pixel, with Shift by ten', async () => {
    expect(press('ArrowLeft', { altKey: true })).toBe(true);
    expect((await kept()).method).toMatchObject({ donor: { dx: 29, dy: -10 } });
    press('ArrowDown', { altKey: true, shiftKey: true });
    expect((await kept()).method).toMatchObject({ donor: { dy: 0 } });
  });

  test.each([
    ['[', { turn: 1 }],
    ['{', { turn: 15 }],
    [']', { turn: -1 }],
    ['=', { scale: 1.01 }],
    ['_', { scale: 0.9 }],
    ['x', { mirrorX: true }],
    ['y', { mirrorY: true }],
  ])('%s changes how it is laid', async (key, donor) => {
    expect(press(key)).toBe(true);
    expect((await kept()).method).toMatchObject({ donor });
  });

  test('without a donor there is nothing to change', () => {
    bench.set({ selected: idOf(2) });
    expect(press('x')).toBe(false);
    expect(server.postChange).not.toHaveBeenCalled();
  });
});

describe('repairs', () => {
  test('n and p walk the docket and stop at its ends', () => {
    press('n');
    expect(state().selected).toBe(idOf(2));
    press('n');
    press('n');
    expect(state().selected).toBe(idOf(3));
    press('p');
    press('p');
    press('p');
    expect(state().selected).toBe(idOf(1));
    bench.set({ selected: null });
    press('p');
    expect(state().selected).toBe(idOf(3));
  });

  test('Delete takes the open one away; with none open it means nothing', async () => {
    press('Delete');
    await settled();
    expect(server.postChange.mock.calls[0]![3]).toEqual([
      { entity: 'repair', id: idOf(1), after: null },
    ]);
    bench.set({ selected: null });
    expect(press('Delete')).toBe(false);
  });

  test('Escape steps back: the drawing first, then what is open', () => {
    bench.set({
      draft: { site: { kind: 'dab', at: [1, 1] }, measured: [], widths: [], measuring: 0 },
    });
    press('Escape');
    expect(state()).toMatchObject({ draft: null, selected: idOf(1) });
    press('Escape');
    expect(state().selected).toBeNull();
  });

  test('Escape ends marking and adding before anything else', () => {
    bench.set({ addingFinding: true, marking: 'subject' });
    press('Escape');
    expect(state()).toMatchObject({ addingFinding: false, marking: null, selected: idOf(1) });
  });

  test('Ctrl and Z undo, with Shift redo', async () => {
    server.postMove.mockResolvedValue(recordsOf([clone], { version: 2 }));
    press('z', { ctrlKey: true });
    await settled();
    press('Z', { metaKey: true, shiftKey: true });
    await settled();
    expect(server.postMove.mock.calls.map(([, move]) => move)).toEqual(['undo', 'redo']);
  });
});

describe('what is seen', () => {
  test('is as received while v is held, all marks while a is, a donor named while d is', () => {
    for (const [key, flag] of [
      ['v', 'asReceived'],
      ['a', 'showAll'],
      ['d', 'pickingDonor'],
    ] as const) {
      press(key);
      expect(state()[flag]).toBe(true);
      keyUp(bench, { key: key.toUpperCase() } as KeyboardEvent);
      expect(state()[flag]).toBe(false);
      press(key);
      keysLeft(bench);
      expect(state()[flag]).toBe(false);
    }
  });

  test('arrows pan, f fits, r shows it pixel for pixel, t twice as large, q and e turn', () => {
    press('ArrowLeft');
    expect(state().viewport).toMatchObject({ x: 120, y: 100 });
    press('r');
    expect(state().viewport!.zoom).toBeCloseTo(1, 9);
    press('t');
    expect(state().viewport!.zoom).toBeCloseTo(2, 9);
    press('q');
    expect(state().viewport!.turn).toBe(5);
    press('e');
    press('f');
    expect(state().viewport).toMatchObject({ x: 149.5, y: 99.5, turn: 0 });
  });

  test('b splits the view in the middle and joins it again', () => {
    press('b');
    expect(state().split).toBe(0.5);
    press('b');
    expect(state().split).toBeNull();
  });
});

describe('keys that belong elsewhere', () => {
  test.each([
    ['a field', '4', ['textarea']],
    ['an open window', 'Delete', ['[role="dialog"]']],
    ['a slider', 'ArrowLeft', ['[role="slider"]']],
    ['a button', 'ArrowDown', ['button:not([role="option"])']],
  ])('%s keeps its own', (_, key, on) => {
    const before = state();
    expect(press(key, {}, on)).toBe(false);
    expect(state()).toEqual(before);
  });

  test('a slider leaves the others to the bench', () => {
    expect(press('2', {}, ['[role="slider"]'])).toBe(true);
    expect(state().tool.method).toBe('graft');
  });

  test('what means nothing is left to the browser', () => {
    expect(press('F5')).toBe(false);
    expect(press('4', { ctrlKey: true })).toBe(false);
  });
});
