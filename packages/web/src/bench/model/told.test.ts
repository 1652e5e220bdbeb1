import type { Repair, RepairTell } from '@tersum/document';
import { plainFill } from '@tersum/document';
import { farBeyond, toldOf } from './told.js';

const repair = (id: string, enabled = true): Repair => ({
  id,
  layerId: crypto.randomUUID(),
  position: 0,
  enabled,
  site: { kind: 'dab', at: [10, 10] },
  width: 8,
  softness: 0,
  flow: 1,
  strength: 1,
  method: plainFill(crypto.randomUUID()),
  reason: '',
  createdAt: '2026-11-01T00:00:00.000Z',
});
const tell = (more: Partial<RepairTell>): RepairTell => ({
  kind: 'seam',
  value: 3,
  limit: 1.5,
  box: { x: 0, y: 0, width: 9, height: 9 },
  repair: 'on',
  stands: false,
  ...more,
});

test('tells are listed the worst first; what stands and what is grain alone is told apart', () => {
  const slight = tell({ value: 1.6 });
  const strong = tell({ kind: 'softness', value: 0.3, limit: 0.78 });
  const whole = tell({ kind: 'pull', value: 0.9, limit: 0.5, repair: null });
  const proof = {
    version: 3,
    tells: [
      slight,
      strong,
      whole,
      tell({ stands: true }),
      tell({ kind: 'repeat', value: 20, limit: 9, faint: true }),
      tell({ repair: 'off', value: 90 }),
      tell({ repair: 'gone', value: 90 }),
    ],
  };
  const told = toldOf(proof, [repair('on'), repair('off', false)]);
  expect(told.open).toEqual([strong, whole, slight]);
  expect(told.standing).toHaveLength(1);
  expect(told.faint).toBe(1);
});

test('without a proof nothing is told', () => {
  expect(toldOf(null, [repair('on')])).toEqual({ open: [], standing: [], faint: 0 });
});

test('how far a value is beyond its limit counts the same in both directions', () => {
  expect(farBeyond({ value: 3, limit: 1.5 })).toBeCloseTo(farBeyond({ value: 0.39, limit: 0.78 }));
  expect(farBeyond({ value: 2, limit: 2 })).toBe(0);
});
