import { SurveySettingsSchema } from '../schema/finding.js';
import type { FindingFacts } from './open-findings.js';
import { isOpen, leastScore, useOf } from './open-findings.js';

const settings = SurveySettingsSchema.parse({});
const fact = (more: Partial<FindingFacts> = {}): FindingFacts => ({
  kind: 'specks',
  score: 0.8,
  size: 4,
  contrast: 20,
  dismissed: false,
  repairId: null,
  ...more,
});
const open = (more: Partial<FindingFacts>, over = settings, standing: string[] = []): boolean =>
  isOpen(fact(more), over, new Set(standing), 300);

test('a sensitivity of a half asks for a score of a half; more asks for less', () => {
  expect(leastScore(0.5)).toBe(0.5);
  expect(leastScore(0.8)).toBeLessThan(0.2);
  expect(leastScore(0.2)).toBeGreaterThan(0.8);
});

test('open is what is likely, allowed, neither kept as it is nor mended', () => {
  expect(open({})).toBe(true);
  expect(open({ score: 0.4 })).toBe(false);
  expect(open({ score: 0.4 }, { ...settings, sensitivity: { specks: 0.9 } })).toBe(true);
  expect(open({ dismissed: true })).toBe(false);
  expect(open({ kind: 'wires' })).toBe(false);
  expect(open({ kind: 'wires' }, { ...settings, policy: 'picture' })).toBe(true);
});

test('a mended finding is open again when its repair no longer stands', () => {
  expect(open({ repairId: 'r' }, settings, ['r'])).toBe(false);
  expect(open({ repairId: 'r' }, settings, [])).toBe(true);
});

test('what does not show at the use can be left out: under 0.087 mm at 300 mm (ISO 8596)', () => {
  const shown = { ...settings, onlyShown: true };
  // At 300 ppi a px is 0.085 mm.
  expect(open({ size: 1 }, shown)).toBe(false);
  expect(open({ size: 1.1 }, shown)).toBe(true);
  expect(open({ size: 4, contrast: 1 }, shown)).toBe(false);
  expect(open({ size: 1 }, { ...shown, enlargement: 2 })).toBe(true);
  expect(useOf(settings, null).ppi).toBe(300);
});
