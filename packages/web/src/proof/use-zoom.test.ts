import { SurveySettingsSchema } from '@tersum/document';
import { blurOnScreen, zoomAtUse } from './use-zoom.js';

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

test('at the zoom of the use the eye blurs by itself; at a larger one the rest is added', () => {
  const { zoom } = zoomAtUse(settings, { width: 3000, ppi: 300 });
  expect(blurOnScreen(settings, 300, zoom)).toBeCloseTo(0, 3);
  expect(blurOnScreen(settings, 300, zoom / 2)).toBe(0);
  // One arc minute at 300 mm is 0.0873 mm: at 300 ppi 1.03 px wide at half height, 0.438 px of standard deviation. At eight
  // times its size that is 3.50 px, of which the eye at 600 mm does 0.28 px itself.
  expect(blurOnScreen(settings, 300, 8)).toBeCloseTo(Math.sqrt(3.5 ** 2 - 0.28 ** 2), 1);
  // From a wall's distance hardly anything fine is left.
  expect(blurOnScreen({ ...settings, distance: 3000 }, 300, 1)).toBeCloseTo(4.37, 1);
});
