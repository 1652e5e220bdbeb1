import type { Repair } from '@tersum/document';
import { NO_RECORDS, plainFill, shiftDonor } from '@tersum/document';
import {
  docketOrder,
  hits,
  letterOf,
  movedBy,
  repairEdit,
  searchedAnew,
  swapEdits,
} from './repairs.js';
import { widthForLine } from './drafting.js';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

beforeAll(() => {
  let n = 0;
  Object.assign(globalThis.crypto, { randomUUID: () => id(9000 + n++) });
});

function repair(n: number, more: Partial<Repair> = {}): Repair {
  return {
    id: id(n),
    layerId: id(100),
    position: n,
    enabled: true,
    site: { kind: 'dab', at: [50, 40] },
    width: 10,
    softness: 0,
    flow: 1,
    strength: 1,
    method: { kind: 'clone', donor: shiftDonor(5, 6), other: null },
    reason: '',
    createdAt: '2026-11-02T10:00:00.000Z',
    ...more,
  };
}

describe('repairs on the docket', () => {
  test('letters go on after Z', () => {
    expect([0, 25, 26, 27, 701, 702].map(letterOf)).toEqual(['A', 'Z', 'AA', 'AB', 'ZZ', 'AAA']);
  });

  test('the top layer comes first, within it what was done first', () => {
    const layers = [
      { id: id(100), name: 'Below', visible: true, position: 0 },
      { id: id(101), name: 'Above', visible: true, position: 1 },
    ];
    const repairs = [repair(2), repair(1), repair(3, { layerId: id(101) })];
    expect(docketOrder({ ...NO_RECORDS, layers, repairs }).map((r) => r.id)).toEqual([
      id(3),
      id(1),
      id(2),
    ]);
  });

  test('a click hits the site and nothing beside it', () => {
    const frame = { x: 0, y: 0, width: 100, height: 80 };
    expect(hits(repair(1), [52, 41], frame)).toBe(true);
    expect(hits(repair(1), [60, 41], frame)).toBe(false);
  });

  test('moving a fill asks for a new search, moving a clone does not', () => {
    const fill = repair(1, { method: plainFill(id(7)) });
    const moved = movedBy(fill, 3.4, -2);
    expect(moved.site).toEqual({ kind: 'dab', at: [53, 38] });
    expect(moved.method).not.toEqual(fill.method);
    expect(movedBy(repair(1), 3, 3).method).toEqual(repair(1).method);
    expect(searchedAnew(fill).method).toMatchObject({ seed: 1, adapt: 1 });
  });

  test('a swap numbers the whole list, and the ends cannot be passed', () => {
    const list = [
      repair(1, { position: 4 }),
      repair(2, { position: 4 }),
      repair(3, { position: 9 }),
    ];
    const after = swapEdits(list, 0, 1, repairEdit).map((e) => [
      e.id,
      (e.after as Repair).position,
    ]);
    expect(after).toEqual([
      [id(2), 0],
      [id(1), 1],
      [id(3), 2],
    ]);
    expect(swapEdits(list, 2, 1, repairEdit)).toEqual([]);
  });

  // Width of the stroke 1.1-1.3 x the defect, at least 2 px over it: common practice, no source.
  test('the width for a line stands over it', () => {
    expect(widthForLine(20)).toBe(26);
    expect(widthForLine(4)).toBeGreaterThanOrEqual(6);
  });
});
