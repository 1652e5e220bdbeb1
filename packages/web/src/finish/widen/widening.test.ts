import type { PictureRecords, Repair } from '@tersum/document';
import { applyEdits, RepairSchema } from '@tersum/document';
import { backdropEdits } from './backdrop.js';
import { wayOf, wideningEdits, wideningIn, withoutEdits } from './widening.js';

const LAYER = { id: crypto.randomUUID(), name: 'Repairs', visible: true, position: 3 };
const records = {
  picture: { id: crypto.randomUUID(), width: 120, height: 90, ppi: null },
  layers: [LAYER],
  repairs: [],
  tones: [],
  frames: [],
  preparations: [],
} as unknown as PictureRecords;
const SIDES = { left: 10, right: 20, top: 0, bottom: 0 };
const THING = [
  [40, 20],
  [80, 20],
  [60, 80],
] as const;

const after = (before: PictureRecords, edits: Parameters<typeof applyEdits>[1]) =>
  ({ ...before, ...applyEdits(before, edits) }) as PictureRecords;

test('a widening is one valid record above everything there is, and is changed in place', () => {
  const widened = after(records, wideningEdits(records, SIDES, 'fill', [THING]));
  const made = wideningIn(widened)!;
  expect(RepairSchema.safeParse(made).success).toBe(true);
  expect(wayOf(made)).toBe('fill');
  expect(widened.layers.find((l) => l.id === made.layerId)!.position).toBeGreaterThan(3);
  expect(made.site).toMatchObject({ kind: 'parts' });
  expect(fillOf(made).areas).toHaveLength(1);

  // Stretched instead: the same record, on the same layer.
  const changed = after(
    widened,
    wideningEdits(widened, { ...SIDES, left: -5 }, 'stretch', [THING]),
  );
  const stretch = wideningIn(changed)!;
  expect([stretch.id, stretch.layerId]).toEqual([made.id, made.layerId]);
  expect(stretch.site).toEqual({ kind: 'rectangle', x: 5, y: 0, width: 135, height: 90 });
  expect(RepairSchema.safeParse(stretch).success).toBe(true);
});

test('what a person asked of a fill stands when its canvas changes; it is searched anew', () => {
  const widened = after(records, wideningEdits(records, SIDES, 'fill', [THING]));
  const made = wideningIn(widened)!;
  const asked = { ...made, method: { ...fillOf(made), lean: 'texture' as const, areas: [] } };
  const before = after(widened, [{ entity: 'repair', id: made.id, after: asked }]);
  const again = fillOf(
    wideningIn(after(before, wideningEdits(before, { ...SIDES, top: 4 }, 'fill', [THING])))!,
  );
  expect(again).toMatchObject({ lean: 'texture', areas: [], sides: { top: 4 } });
  expect(again.search).not.toBe(fillOf(made).search);
});

test('it is taken away with its layer, unless something else lies there', () => {
  const widened = after(records, wideningEdits(records, SIDES, 'fill', []));
  expect(after(widened, withoutEdits(widened)).layers).toEqual([LAYER]);
  const made = wideningIn(widened)!;
  const touch = { ...made, id: crypto.randomUUID(), method: { kind: 'push' as const } };
  const touched = after(widened, [{ entity: 'repair', id: touch.id, after: touch }]);
  const left = after(touched, withoutEdits(touched));
  expect(left.layers).toHaveLength(2);
  expect(left.repairs.map((r) => r.id)).toEqual([touch.id]);
});

function fillOf({ method }: Repair) {
  if (method.kind !== 'fill') throw new Error('not a fill');
  return method;
}

test('a backdrop that ends inside the frame is filled on a layer of its own, the subject not copied', () => {
  const gap = [
    [0, 0],
    [12, 0],
    [12, 89],
    [0, 89],
  ] as const;
  const extended = after(records, backdropEdits(records, [gap], [THING]));
  const [fill] = extended.repairs;
  expect(RepairSchema.safeParse(fill).success).toBe(true);
  expect(extended.layers.find((l) => l.id === fill!.layerId)).toMatchObject({
    name: 'Backdrop',
    position: 4,
  });
  expect(fillOf(fill!)).toMatchObject({ sides: null, areas: [{ allow: false }] });
  // A later widening lies above it.
  const widened = after(extended, wideningEdits(extended, SIDES, 'fill', []));
  const above = widened.layers.find((l) => l.id === wideningIn(widened)!.layerId)!;
  expect(above.position).toBeGreaterThan(4);
});
