import type { Rotation } from './rotation.js';
import { rotationOf } from './rotation.js';
import type { Turned } from './cameras.js';
import { CannotLay, surfaceOf } from './surface.js';

const SIZE = { width: 800, height: 600 };
const FOCAL = 900;
const degrees = (d: number): number => (d * Math.PI) / 180;

/** Cameras that turned about the upright, by degrees; y points down, so right is a positive turn. */
function turned(angles: readonly (number | null)[], bow = 0, roll = 0): Turned {
  const turns = angles.map((a): Rotation | null => {
    if (a === null) return null;
    return rotationOf([0, degrees(a), 0]);
  });
  const tilt = rotationOf([0, 0, degrees(roll)]);
  const rolled = turns.map(
    (t) =>
      t &&
      Array.from({ length: 9 }, (_, k) => {
        const [r, c] = [Math.floor(k / 3), k % 3];
        return tilt[3 * r]! * t[c]! + tilt[3 * r + 1]! * t[3 + c]! + tilt[3 * r + 2]! * t[6 + c]!;
      }),
  );
  return { kind: 'turned', focal: FOCAL, bow, turns: rolled };
}

/** Where a canvas point lies in a frame. */
function inFrame(surface: ReturnType<typeof surfaceOf>, frame: number, x: number, y: number) {
  const at = new Float64Array(2);
  surface.toFrame[frame]!(x, y, at);
  return [at[0]!, at[1]!] as const;
}

describe('the surface frames are laid on', () => {
  test('is a plane for a narrow sweep, a cylinder for a wide one', () => {
    const sizes = [SIZE, SIZE];
    expect(surfaceOf(turned([-5, 5]), sizes, 'auto').projection).toBe('plane');
    expect(surfaceOf(turned([-30, 30]), sizes, 'auto').projection).toBe('cylinder');
    expect(surfaceOf(turned([-5, 5]), sizes, 'cylinder').projection).toBe('cylinder');
  });

  test('a single frame on a plane is the frame itself', () => {
    const surface = surfaceOf(turned([0]), [SIZE], 'plane');
    expect(Math.abs(surface.width - SIZE.width)).toBeLessThanOrEqual(2);
    expect(Math.abs(surface.height - SIZE.height)).toBeLessThanOrEqual(2);
    const [x0, y0] = inFrame(surface, 0, 100, 50);
    const [x1, y1] = inFrame(surface, 0, 612, 451);
    expect(x1 - x0).toBeCloseTo(512, 3);
    expect(y1 - y0).toBeCloseTo(401, 3);
  });

  test('a cylinder is as wide as the angle across, at the focal length', () => {
    const { width, boxes } = surfaceOf(turned([-40, 0, 40]), [SIZE, SIZE, SIZE], 'cylinder');
    const across = degrees(80) + 2 * Math.atan(399.5 / FOCAL);
    expect(Math.abs(width - FOCAL * across)).toBeLessThan(4);
    const middle = (k: number): number => boxes[k]!.x + boxes[k]!.width / 2;
    expect(Math.abs(middle(1) - middle(0) - FOCAL * degrees(40))).toBeLessThan(3);
    expect(Math.abs(middle(2) - middle(1) - FOCAL * degrees(40))).toBeLessThan(3);
  });

  test.each(['plane', 'cylinder'] as const)('one direction is one point of the %s', (how) => {
    const surface = surfaceOf(turned([-12, 12]), [SIZE, SIZE], how);
    // The middle of the canvas looks straight ahead: 12 degrees beside each frame's own middle.
    const off = FOCAL * Math.tan(degrees(12));
    const [lx, ly] = inFrame(surface, 0, (surface.width - 1) / 2, (surface.height - 1) / 2);
    const [rx, ry] = inFrame(surface, 1, (surface.width - 1) / 2, (surface.height - 1) / 2);
    expect(Math.abs(lx - (399.5 + off))).toBeLessThan(1.5);
    expect(Math.abs(rx - (399.5 - off))).toBeLessThan(1.5);
    expect(Math.abs(ly - 299.5)).toBeLessThan(1.5);
    expect(ly).toBeCloseTo(ry, 6);
  });

  test('a camera held askew is set level', () => {
    const [straight, askew] = [0, 7].map((roll) =>
      surfaceOf(turned([-30, 0, 30], 0, roll), [SIZE, SIZE, SIZE], 'cylinder'),
    );
    expect(Math.abs(askew!.height - straight!.height)).toBeLessThan(3);
    expect(Math.abs(askew!.width - straight!.width)).toBeLessThan(3);
  });

  test('a bowed lens is straightened: the distortion is undone exactly', () => {
    const bow = 0.08;
    const surface = surfaceOf(turned([0], bow), [SIZE], 'plane');
    const [cx, cy] = [(surface.width - 1) / 2, (surface.height - 1) / 2];
    const [x, y] = inFrame(surface, 0, cx + 250, cy + 120);
    const [u, v] = [(x - 399.5) / FOCAL, (y - 299.5) / FOCAL];
    const s = 1 + bow * (u * u + v * v);
    expect(Math.abs(u * s * FOCAL - 250)).toBeLessThan(1);
    expect(Math.abs(v * s * FOCAL - 120)).toBeLessThan(1);
  });

  test('frames that do not belong have no place', () => {
    const surface = surfaceOf(turned([-5, null, 5]), [SIZE, SIZE, SIZE], 'auto');
    expect(surface.toFrame[1]).toBeNull();
    expect(surface.boxes[1]).toBeNull();
  });

  test('what reaches too far round is refused in words that say what to do', () => {
    const sizes = [SIZE, SIZE, SIZE];
    expect(() => surfaceOf(turned([-70, 0, 70]), sizes, 'plane')).toThrow(/use a cylinder/);
    const flat = { kind: 'flat' as const, maps: [[1, 0, 0, 0, 1, 0, 0, 0, 1]] };
    expect(() => surfaceOf(flat, [SIZE], 'cylinder')).toThrow(CannotLay);
    const oblique = { kind: 'flat' as const, maps: [[1, 0, 0, 0, 1, 0, -0.0012, 0, 1]] };
    expect(() => surfaceOf(oblique, [SIZE], 'plane')).toThrow(/obliquely/);
  });

  test('flat frames lie where their maps put them', () => {
    const maps = [
      [1, 0, 0, 0, 1, 0, 0, 0, 1],
      [1, 0, 300, 0, 1, -40, 0, 0, 1],
    ];
    const { width, height, boxes } = surfaceOf({ kind: 'flat', maps }, [SIZE, SIZE], 'auto');
    expect([width, height]).toEqual([1100, 640]);
    expect(boxes).toEqual([
      { x: 0, y: 40, width: 800, height: 600 },
      { x: 300, y: 0, width: 800, height: 600 },
    ]);
  });
});
