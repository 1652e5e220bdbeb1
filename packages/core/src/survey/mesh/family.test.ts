import { seededRandom } from '../../random/random.js';
import type { Crests } from './crests.js';
import { familiesOf, worth } from './family.js';

const frame = { width: 400, height: 300 };

interface Run {
  readonly angle: number;
  readonly step: number;
  /** How far lines bow over the frame, px. */
  readonly bow?: number;
}

/** Crest points along families of lines, every 3 px, a share of them missing, each off by a little. */
function crestsOf(runs: readonly Run[], missing = 0): Crests {
  const random = seededRandom(9);
  const points: number[][] = [];
  for (const { angle, step, bow = 0 } of runs) {
    const [nx, ny] = [Math.cos(angle), Math.sin(angle)];
    for (let off = -300; off <= 300; off += step)
      for (let s = -300; s <= 300; s += 3) {
        const out = off + bow * (s / 250) ** 2 + random.between(-3, 3) / 10;
        const x = 200 + out * nx - s * ny;
        const y = 150 + out * ny + s * nx;
        if (x < 0 || y < 0 || x >= frame.width || y >= frame.height) continue;
        if (random.unit() < missing) continue;
        const slope = (2 * bow * s) / 250 ** 2;
        const [tx, ty] = [-ny + slope * nx, nx + slope * ny];
        const length = Math.hypot(tx, ty);
        points.push([x, y, tx / length, ty / length]);
      }
  }
  const column = (k: number): Float32Array => Float32Array.from(points, (row) => row[k]!);
  return {
    count: points.length,
    x: column(0),
    y: column(1),
    tx: column(2),
    ty: column(3),
    length: new Float32Array(points.length).fill(3),
    level: new Uint8Array(points.length),
  };
}

const turned = (a: number, b: number): number => {
  const apart = Math.abs(a - b) % Math.PI;
  return Math.min(apart, Math.PI - apart);
};

describe('families of near-parallel lines', () => {
  test('two that cross are found with their directions and steps', () => {
    const made = [
      { angle: 0.6, step: 34 },
      { angle: 2.3, step: 40 },
    ];
    const found = familiesOf(crestsOf(made), frame).slice(0, 2);
    for (const { angle, step } of made) {
      const own = found.find((f) => turned(f.angle, angle) < 0.03)!;
      expect(own).toBeDefined();
      expect(own.step).toBeCloseTo(step, 0);
      expect(own.borne).toBeGreaterThan(0.9);
      expect(own.between).toBeLessThan(0.05);
    }
  });

  test('bowed ones with half their crests missing as well', () => {
    const [best] = familiesOf(crestsOf([{ angle: 1.2, step: 30, bow: 18 }], 0.5), frame);
    expect(turned(best!.angle, 1.2)).toBeLessThan(0.05);
    expect(best!.step).toBeCloseTo(30, 0);
    expect(best!.between).toBeLessThan(0.1);
    expect(worth(best!)).toBeGreaterThan(0.35);
  });

  test('narrow ones in a large picture, bowed by several of their steps', () => {
    const small = crestsOf([{ angle: 2.4, step: 12, bow: 60 }]);
    const larger = (list: Float32Array): Float32Array => list.map((v) => 5 * v);
    const { x, y, length } = small;
    const crests = { ...small, x: larger(x), y: larger(y), length: larger(length) };
    const [best] = familiesOf(crests, { width: 2000, height: 1500 });
    expect(turned(best!.angle, 2.4)).toBeLessThan(0.05);
    expect(best!.borne).toBeGreaterThan(0.9);
    expect(best!.between).toBeLessThan(0.05);
  });

  test('of wide ones those midway, which have no crests, are none', () => {
    const found = familiesOf(crestsOf([{ angle: 0.7, step: 76 }]), frame);
    expect(found[0]!.step).toBeCloseTo(76, 0);
    expect(turned(found[0]!.angle, 0.7)).toBeLessThan(0.03);
  });

  test('are none where there is one line alone', () => {
    const found = familiesOf(crestsOf([{ angle: 0.7, step: 300 }]), frame);
    for (const family of found) expect(worth(family)).toBeLessThan(0.5);
  });

  test('crests all over the place bear none out', () => {
    const random = seededRandom(3);
    const count = 3000;
    const some = (most: number): Float32Array =>
      Float32Array.from({ length: count }, () => most * random.unit());
    const angles = some(2 * Math.PI);
    const loose: Crests = {
      count,
      x: some(frame.width),
      y: some(frame.height),
      tx: angles.map(Math.cos),
      ty: angles.map(Math.sin),
      length: new Float32Array(count).fill(3),
      level: new Uint8Array(count),
    };
    for (const family of familiesOf(loose, frame)) expect(family.between).toBeGreaterThan(0.27);
  });
});
