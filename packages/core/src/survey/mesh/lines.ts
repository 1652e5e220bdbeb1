import type { Phase } from './phase.js';
import { phaseAt, slopeAt } from './phase.js';

/** Points along one line of a family, about evenly spaced, with the unit vector across it. */
export interface FamilyLine {
  readonly index: number;
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly nx: Float32Array;
  readonly ny: Float32Array;
}

/** Spacing of points along a line, px. */
export const SPACING = 3;

/**
 * Every line of a phase that crosses the frame.
 * @param frame px; lines are followed a little beyond it
 */
export function linesOf(
  phase: Phase,
  frame: { readonly width: number; readonly height: number },
): FamilyLine[] {
  const { width, height } = frame;
  const [sx, sy] = slopeAt(phase, width / 2, height / 2);
  const steep = Math.abs(sy) >= Math.abs(sx);
  const corners = [
    [0, 0],
    [width - 1, 0],
    [0, height - 1],
    [width - 1, height - 1],
  ].map(([x, y]) => phaseAt(phase, x!, y!));
  const lines: FamilyLine[] = [];
  for (
    let index = Math.ceil(Math.min(...corners) - 2);
    index <= Math.max(...corners) + 2;
    index++
  ) {
    const points = steep
      ? along(phase, index, width, height, false)
      : along(phase, index, height, width, true);
    if (points.length < 4) continue;
    lines.push(lineThrough(phase, index, points));
  }
  return lines;
}

/** Where a line is, column by column, or row by row when it is turned. */
function along(
  phase: Phase,
  index: number,
  length: number,
  across: number,
  turned: boolean,
): [number, number][] {
  const at = (s: number, t: number): number =>
    turned ? phaseAt(phase, t, s) : phaseAt(phase, s, t);
  const slope = (s: number, t: number): number =>
    turned ? slopeAt(phase, t, s)[0] : slopeAt(phase, s, t)[1];
  const points: [number, number][] = [];
  let t = across / 2;
  for (let s = 0; s < length; s++) {
    let settled = false;
    for (let round = 0; round < 12 && !settled; round++) {
      const move = (index - at(s, t)) / slope(s, t);
      t += Math.max(-across / 4, Math.min(across / 4, move));
      settled = Math.abs(move) < 0.01;
    }
    if (!settled || t < -across || t > 2 * across) t = across / 2;
    else if (t > -1 && t < across) points.push(turned ? [t, s] : [s, t]);
  }
  return points;
}

/** Points at even spacing along those of a line. */
function lineThrough(phase: Phase, index: number, points: readonly [number, number][]): FamilyLine {
  const kept: [number, number][] = [points[0]!];
  for (const point of points) {
    const [x, y] = kept.at(-1)!;
    if (Math.hypot(point[0] - x, point[1] - y) >= SPACING) kept.push(point);
  }
  const normals = kept.map(([x, y]) => {
    const [sx, sy] = slopeAt(phase, x, y);
    const d = Math.hypot(sx, sy);
    return [sx / d, sy / d] as const;
  });
  return {
    index,
    x: Float32Array.from(kept, ([x]) => x),
    y: Float32Array.from(kept, ([, y]) => y),
    nx: Float32Array.from(normals, ([x]) => x),
    ny: Float32Array.from(normals, ([, y]) => y),
  };
}
