import { linesOf } from './lines.js';
import { phaseAt, phaseThrough, slopeAt, TERMS } from './phase.js';

const frame = { cx: 50, cy: 40, unit: 64 };

describe('phase of a family of lines', () => {
  test('is found again from marks on it, with its slope', () => {
    const terms = [3.2, 5, -2, 0.4, -0.3, 0.2, 0.05, -0.04, 0.03, 0.02];
    const made = { ...frame, terms };
    const marks = [];
    for (let y = 0; y <= 80; y += 8)
      for (let x = 0; x <= 100; x += 10)
        marks.push({ x, y, weight: 1, phase: phaseAt(made, x, y) });
    const found = phaseThrough(marks, frame, TERMS.full);
    for (const [x, y] of [
      [3, 5],
      [50, 40],
      [97, 71],
    ] as const) {
      expect(phaseAt(found, x, y)).toBeCloseTo(phaseAt(made, x, y), 2);
      const h = 1e-4;
      const [sx, sy] = slopeAt(made, x, y);
      expect(sx).toBeCloseTo((phaseAt(made, x + h, y) - phaseAt(made, x - h, y)) / (2 * h), 6);
      expect(sy).toBeCloseTo((phaseAt(made, x, y + h) - phaseAt(made, x, y - h)) / (2 * h), 6);
    }
  });

  test('straight lines 10 px apart cross a frame of 100 by 80 as often as they fit', () => {
    const phase = { ...frame, terms: [5, 6.4, 0, 0, 0, 0, 0, 0, 0, 0] };
    const lines = linesOf(phase, { width: 100, height: 80 });
    // The phase is x / 10: lines at 0, 10, ... 90.
    expect(lines.map(({ index }) => index).filter((i) => i >= 0 && i <= 9)).toHaveLength(10);
    for (const { index, x } of lines) for (const v of x) expect(v).toBeCloseTo(10 * index, 2);
  });
});
