import type { Repair } from '@tersum/document';
import { plainFill, shiftDonor } from '@tersum/document';
import { donorCorners, donorOf, holdsDonor, laidCorners, scaledBy, turnedBy } from './donors.js';
import { freshMethod, laidAside } from './fresh.js';
import { FIRST_TOOL } from './first-state.js';
import { canJoin, canSplit, joined, split } from './many.js';
import { movedBy } from './repairs.js';

let next = 0;
beforeAll(() => {
  Object.assign(globalThis.crypto, {
    randomUUID: () => `00000000-0000-4000-8000-${String(++next).padStart(12, '0')}`,
  });
});

const id = (n: number): string => `00000000-0000-4000-8000-${String(90_000 + n).padStart(12, '0')}`;

function repair(n: number, more: Partial<Repair> = {}): Repair {
  return {
    id: id(n),
    layerId: id(500),
    position: n,
    enabled: true,
    site: { kind: 'rectangle', x: 100, y: 80, width: 21, height: 11 },
    width: 10,
    softness: 0,
    flow: 1,
    strength: 1,
    method: { kind: 'clone', donor: shiftDonor(30, -10), other: null },
    reason: '',
    createdAt: '2026-11-02T10:00:00.000Z',
    ...more,
  };
}

describe('donors of repairs', () => {
  test('turns go round, scales stay within 25 and 400 %', () => {
    expect(donorOf(turnedBy(repair(1), 190))!.turn).toBe(-170);
    expect(donorOf(turnedBy(repair(1), -0.5))!.turn).toBe(-0.5);
    expect(donorOf(scaledBy(repair(1), 100))!.scale).toBe(4);
    expect(donorOf(scaledBy(repair(1), 0.01))!.scale).toBe(0.25);
  });

  // By hand: a site of box 99..121 x 79..91 about 110, 85; twice as large content comes from half the area.
  test('the donor’s corners say where content comes from', () => {
    const plain = donorCorners(repair(1), shiftDonor(30, -10));
    const wide = donorCorners(repair(1), { ...shiftDonor(30, -10), scale: 2 });
    const width = (c: readonly (readonly [number, number])[]): number => c[1]![0] - c[0]![0];
    expect(plain[0]).toEqual([plain[0]![0], plain[0]![1]]);
    expect(width(plain)).toBe(2 * width(wide));
    const middle = (c: readonly (readonly [number, number])[]): number => (c[0]![0] + c[2]![0]) / 2;
    expect(middle(plain)).toBeCloseTo(middle(wide), 9);
  });

  test('methods without a donor stay as they are', () => {
    const back = repair(1, { method: { kind: 'give back' } });
    expect(turnedBy(back, 10)).toBe(back);
    expect(donorOf(back)).toBeNull();
  });

  test('what was lifted stays where it was when the piece is moved', () => {
    const tool = { ...FIRST_TOOL, patchFrom: 'good' as const };
    const drawn = repair(2, { method: freshMethod('piece', tool) });
    const laid = laidAside(drawn, { width: 400 });
    const source = (r: Repair): [number, number] => {
      if (r.site.kind !== 'rectangle') throw new Error('a rectangle');
      const donor = donorOf(r)!;
      return [r.site.x + donor.dx, r.site.y + donor.dy];
    };
    expect(holdsDonor(laid)).toBe(true);
    expect(source(laid)).toEqual([100, 80]);
    expect(source(movedBy(laid, -40, 25))).toEqual([100, 80]);
    // Where there is no room to the right it is laid to the left.
    const left = laidAside(drawn, { width: 130 });
    expect(left.site.kind === 'rectangle' && left.site.x).toBeLessThan(100);
    // A patch whose bad area was outlined takes its donor along.
    const patch = repair(3, { method: freshMethod('patch', FIRST_TOOL) });
    expect(donorOf(movedBy(patch, 5, 5))).toEqual(donorOf(patch));
  });

  test('a piece’s pins and painted parts travel with it', () => {
    const method = freshMethod('piece', FIRST_TOOL);
    if (method.kind !== 'piece') throw new Error('a piece');
    const bent = repair(4, {
      method: {
        ...method,
        pins: [{ from: [100, 80], to: [105, 82] }],
        reveal: [{ show: false, points: [[110, 85]], width: 4, softness: 0.5 }],
      },
    });
    const moved = movedBy(bent, 10, -3).method;
    if (moved.kind !== 'piece') throw new Error('a piece');
    expect(moved.pins).toEqual([{ from: [110, 77], to: [115, 79] }]);
    expect(moved.reveal[0]!.points).toEqual([[120, 82]]);
    const before = laidCorners(bent);
    laidCorners(movedBy(bent, 10, -3)).forEach(([x, y], i) => {
      expect(x).toBeCloseTo(before[i]![0] + 10, 6);
      expect(y).toBeCloseTo(before[i]![1] - 3, 6);
    });
  });
});

describe('several repairs', () => {
  const dab = (n: number, x: number): Repair =>
    repair(n, {
      site: { kind: 'dab', at: [x, 50] },
      method: plainFill(id(700 + n)),
    });

  test('joined repairs become one of several parts, and split again', () => {
    const edits = joined([dab(1, 10), dab(2, 40)])!;
    expect(edits.map((e) => [e.id, e.after === null])).toEqual([
      [id(1), false],
      [id(2), true],
    ]);
    const one = edits[0]!.after as Repair;
    expect(one.site).toEqual({
      kind: 'parts',
      parts: [
        { shape: { kind: 'dab', at: [10, 50] }, width: 10 },
        { shape: { kind: 'dab', at: [40, 50] }, width: 10 },
      ],
    });
    // A joined fill is searched anew.
    expect(one.method).not.toEqual(dab(1, 10).method);
    const apart = split(one)!.map((e) => (e.after as Repair).site);
    expect(apart).toEqual([dab(1, 10).site, dab(2, 40).site]);
  });

  test('copies that take different steps, other methods and other layers are not joined', () => {
    expect(canJoin([repair(1), repair(2)])).toBe(true);
    const other = repair(2, { method: { kind: 'clone', donor: shiftDonor(1, 1), other: null } });
    expect(canJoin([repair(1), other])).toBe(false);
    expect(canJoin([repair(1), dab(2, 5)])).toBe(false);
    expect(canJoin([repair(1), repair(2, { layerId: id(501) })])).toBe(false);
    expect(joined([repair(1)])).toBeNull();
  });

  test('a chain is split at a corner, a single run in its middle, a rectangle not at all', () => {
    const chain = (points: [number, number][], bends: number[]): Repair =>
      repair(6, { site: { kind: 'chain', points, bends } });
    const halves = (r: Repair) => split(r)!.map((e) => (e.after as Repair).site);
    expect(
      halves(
        chain(
          [
            [0, 0],
            [10, 0],
            [20, 5],
          ],
          [1, 2],
        ),
      ),
    ).toEqual([
      {
        kind: 'chain',
        points: [
          [0, 0],
          [10, 0],
        ],
        bends: [1],
      },
      {
        kind: 'chain',
        points: [
          [10, 0],
          [20, 5],
        ],
        bends: [2],
      },
    ]);
    expect(
      halves(
        chain(
          [
            [0, 0],
            [10, 4],
          ],
          [0],
        ),
      ),
    ).toEqual([
      {
        kind: 'chain',
        points: [
          [0, 0],
          [5, 2],
        ],
        bends: [0],
      },
      {
        kind: 'chain',
        points: [
          [5, 2],
          [10, 4],
        ],
        bends: [0],
      },
    ]);
    expect(canSplit(repair(1))).toBe(false);
  });
});
