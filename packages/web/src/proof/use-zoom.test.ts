import { SurveySettingsSchema } from '@tersum/document';
import { zoomAtUse } from './use-zoom.js';

const settings = SurveySettingsSchema.parse({});

test('a print in the hand at 30 cm is shown twice as large for eyes 60 cm from the screen', () => {
  const use = zoomAtUse(settings, { width: 3000, ppi: 300 });
  // 254 mm at 300 mm take the angle of 508 mm at 600 mm; a CSS px is 25.4 / 96 mm: 1920 px for 3000.
  expect(use.width).toBe(254);
  expect(use.zoom * 3000).toBeCloseTo(1920, 6);
  expect([use.distance, use.eye]).toEqual([30, 60]);
});

test('twice as far is half as large, four times enlarged four times as large', () => {
  const near = zoomAtUse(settings, { width: 3000, ppi: 300 }).zoom;
  const far = { ...settings, distance: 600 };
  expect(zoomAtUse(far, { width: 3000, ppi: 300 }).zoom).toBeCloseTo(near / 2, 9);
  const large = { ...settings, enlargement: 4 };
  expect(zoomAtUse(large, { width: 3000, ppi: 300 }).zoom).toBeCloseTo(4 * near, 9);
  // Without a density prints are taken to have 300 ppi (common practice).
  expect(zoomAtUse(settings, { width: 3000, ppi: null }).zoom).toBeCloseTo(near, 9);
});
