import type { Point } from '../shape/site.js';
import type { PointMap } from '../raster/resample.js';
import type { Rect } from '../raster/rect.js';
import { grow } from '../raster/rect.js';

const STEPS_PER_RADIUS = 6;

/**
 * A round soft push along a stroke: content under the brush is carried along, most in its middle. Every small
 * step of the stroke moves what lies within the radius by the step times (1 - (d/r)^2)^2, so the map never folds.
 * @param path the stroke, px
 * @param radius half the brush's width, px
 * @param strength 0..1 of the way
 * @param frame the picture: where the stroke runs farther off than its width, nothing is carried
 * @returns for a pixel of the result the place its content comes from
 */
export function pushMap(
  path: readonly Point[],
  radius: number,
  strength: number,
  frame: Rect,
): PointMap {
  const steps = stepsOf(path, radius / STEPS_PER_RADIUS, grow(frame, 2 * radius));
  const r2 = radius * radius;
  return (x, y, to) => {
    let qx = x;
    let qy = y;
    for (let k = steps.length - 1; k >= 0; k--) {
      const s = steps[k]!;
      const dx = qx - s.x;
      const dy = qy - s.y;
      const t = 1 - (dx * dx + dy * dy) / r2;
      if (t <= 0) continue;
      const w = strength * t * t;
      qx -= w * s.dx;
      qy -= w * s.dy;
    }
    to[0] = qx;
    to[1] = qy;
  };
}

interface Step {
  /** Where the brush arrives, and by how far it moved. */
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

function stepsOf(path: readonly Point[], length: number, within: Rect): Step[] {
  const steps: Step[] = [];
  for (let i = 1; i < path.length; i++) {
    const [ax, ay] = path[i - 1]!;
    const [bx, by] = path[i]!;
    const vx = bx - ax;
    const vy = by - ay;
    const n = Math.max(1, Math.ceil(Math.sqrt(vx * vx + vy * vy) / length));
    for (let k = 1; k <= n; k++) {
      const [x, y] = [ax + (vx * k) / n, ay + (vy * k) / n];
      if (x < within.x || y < within.y) continue;
      if (x > within.x + within.width || y > within.y + within.height) continue;
      steps.push({ x, y, dx: vx / n, dy: vy / n });
    }
  }
  return steps;
}
