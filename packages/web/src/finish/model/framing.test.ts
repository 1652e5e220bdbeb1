import type { Quad } from '@tersum/core';
import {
  angleOf,
  bordered,
  framing,
  lineAngle,
  movedFrame,
  shaped,
  SHAPES,
  squared,
  turnedFrame,
  wholeFrame,
  withCorner,
} from './framing.js';

const canvas = { x: 0, y: 0, width: 300, height: 200 };
const near = (quad: Quad, wanted: readonly (readonly [number, number])[]): void =>
  quad.forEach(([x, y], k) => {
    expect(x).toBeCloseTo(wanted[k]![0], 6);
    expect(y).toBeCloseTo(wanted[k]![1], 6);
  });
const [cx, cy] = [canvas.width / 2, canvas.height / 2];
const middleOf = (quad: Quad): [number, number] => [
  quad.reduce((sum, [x]) => sum + x / 4, 0),
  quad.reduce((sum, [, y]) => sum + y / 4, 0),
];

test('the whole picture is a frame of its own size, level', () => {
  const frame = wholeFrame(canvas);
  expect(frame).toMatchObject({ width: 300, height: 200 });
  expect(angleOf(frame)).toBeCloseTo(0, 9);
  expect(angleOf(null)).toBe(0);
});

test.each(SHAPES.filter((s) => s.ratio !== null))(
  '$name is cut as large as it can be',
  ({ ratio }) => {
    const whole = wholeFrame(canvas);
    const frame = shaped(whole, ratio!);
    expect(frame.width / frame.height).toBeCloseTo(ratio!, 1);
    // One of its sides is the picture's own.
    expect(Math.min(300 - frame.width, 200 - frame.height)).toBeLessThanOrEqual(1);
    const [x, y] = middleOf(frame.quad);
    expect(Math.abs(x - cx)).toBeLessThan(1);
    expect(Math.abs(y - cy)).toBeLessThan(1);
  },
);

test('a border of a tenth makes every side a fifth longer, and back', () => {
  const whole = wholeFrame(canvas);
  const wide = bordered(whole, 0.1);
  expect([wide.width, wide.height]).toEqual([360, 240]);
  const back = bordered(wide, -1 / 12);
  expect([back.width, back.height]).toEqual([300, 200]);
});

test.each([-12, -3, 0.5, 7])(
  'turned back by %s degrees nothing of it lies outside the picture',
  (angle) => {
    const frame = turnedFrame(canvas, angle);
    expect(Math.abs(angleOf(frame))).toBeCloseTo(Math.abs(angle), 6);
    for (const [x, y] of frame.quad) {
      expect(x).toBeGreaterThanOrEqual(-1);
      expect(y).toBeGreaterThanOrEqual(-1);
      expect(x).toBeLessThanOrEqual(300);
      expect(y).toBeLessThanOrEqual(200);
    }
    expect(frame.width).toBeLessThan(300);
  },
);

describe('a corner', () => {
  const frame = framing([
    [20, 10],
    [120, 10],
    [120, 90],
    [20, 90],
  ]);

  test('that is moved takes its two neighbours along', () => {
    near(withCorner(frame, 2, [150, 100], false).quad, [
      [20, 10],
      [150, 10],
      [150, 100],
      [20, 100],
    ]);
  });

  test('of free corners moves alone', () => {
    near(withCorner(frame, 0, [25, 3], true).quad, [
      [25, 3],
      [120, 10],
      [120, 90],
      [20, 90],
    ]);
  });

  test('never makes a frame thinner than can be held', () => {
    const thin = withCorner(frame, 2, [20, 10], false);
    expect(thin.width).toBeGreaterThanOrEqual(8);
    expect(thin.height).toBeGreaterThanOrEqual(8);
  });

  test('of a turned frame keeps the turn, and the opposite corner where it was', () => {
    const turned = turnedFrame(canvas, 10);
    const [x, y] = turned.quad[2]!;
    const smaller = withCorner(turned, 2, [x - 30, y - 10], false);
    expect(angleOf(smaller)).toBeCloseTo(angleOf(turned), 6);
    expect(smaller.quad[0]![0]).toBeCloseTo(turned.quad[0]![0], 6);
    expect(smaller.quad[0]![1]).toBeCloseTo(turned.quad[0]![1], 6);
  });
});

test('a frame that is moved keeps its shape', () => {
  const frame = turnedFrame(canvas, 5);
  const moved = movedFrame(frame, 11, -7);
  near(
    moved.quad,
    frame.quad.map(([x, y]) => [x + 11, y - 7] as const),
  );
  expect([moved.width, moved.height]).toEqual([frame.width, frame.height]);
});

test('four free corners made square are a rectangle of right angles', () => {
  const { quad } = squared(
    framing([
      [10, 12],
      [210, 5],
      [205, 118],
      [14, 110],
    ]),
  );
  for (let k = 0; k < 4; k++) {
    const [a, b, c] = [quad[k]!, quad[(k + 1) % 4]!, quad[(k + 2) % 4]!];
    const dot = (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]);
    expect(dot).toBeCloseTo(0, 3);
  }
});

test.each([
  [[0, 0], [100, 0], 0],
  [[0, 0], [100, -10], 5.7106],
  [[100, -10], [0, 0], 5.7106],
  [[0, 0], [10, 100], -84.2894 + 90],
  [[0, 0], [-10, 100], 84.2894 - 90],
] as const)('a line from %j to %j stands %s degrees off level or plumb', (from, to, angle) => {
  expect(lineAngle(from, to)).toBeCloseTo(angle, 3);
});
