import { seededRandom } from '../../random/random.js';
import type { Plane } from '../../raster/plane.js';
import { tensionLines } from './tension.js';
import type { MeshWire, WireLook } from './wires.js';

const [W, H] = [360, 240];
const LOOK: WireLook = { width: 7, soft: 2, tone: 140, stray: 15 };

interface Drawn {
  /** Middle of the wire in a column; null where there is none. */
  readonly at: (x: number) => number | null;
  readonly tone?: number;
}

/** Bright on the left and dark on the right, with grain, and a wire 7 px broad before it. */
function planeWith({ at, tone = LOOK.tone }: Drawn): Plane {
  const random = seededRandom(3);
  const values = new Float32Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const middle = at(x);
      const isWire = middle !== null && Math.abs(y - middle) <= 3.5;
      values[y * W + x] = (isWire ? tone : x < 0.6 * W ? 205 : 60) + random.between(-4, 4);
    }
  return { width: W, height: H, values };
}

function turned({ width, height, values }: Plane): Plane {
  return {
    width: height,
    height: width,
    values: values.map((_, p) => values[(p % height) * width + Math.floor(p / height)]!),
  };
}

const sagging = (x: number): number => 100 + (12 * x) / W + 2 * Math.sin((Math.PI * x) / W);

describe('wires that a mesh hangs on', () => {
  test('are found from border to border, level or plumb, whether darker or brighter than what is behind', () => {
    const plane = planeWith({ at: sagging });
    for (const isPlumb of [false, true]) {
      const found = tensionLines(isPlumb ? turned(plane) : plane, [], LOOK);
      expect(found).toHaveLength(1);
      const [along, over] = isPlumb ? [found[0]!.y, found[0]!.x] : [found[0]!.x, found[0]!.y];
      along.forEach((s, i) => expect(Math.abs(over[i]! - sagging(s))).toBeLessThan(3.5));
      expect(along.at(-1)!).toBeGreaterThan(W - 4);
      const { nx, ny } = found[0]!;
      expect(Math.hypot(nx[0]!, ny[0]!)).toBeCloseTo(1, 6);
      expect(Math.abs(isPlumb ? nx[0]! : ny[0]!)).toBeGreaterThan(0.99);
    }
  });

  test('are not what ends within the picture, has another tone, slants, or is an edge alone', () => {
    const others: Drawn[] = [
      { at: () => null },
      { at: (x) => (x < 0.55 * W ? sagging(x) : null) },
      { at: sagging, tone: 245 },
      { at: (x) => 40 + 0.3 * x },
    ];
    for (const drawn of others) expect(tensionLines(planeWith(drawn), [], LOOK)).toEqual([]);
    const { values } = planeWith({ at: () => null });
    const step = values.map((v, p) => (p < 100 * W ? v : 140));
    expect(tensionLines({ width: W, height: H, values: step }, [], LOOK)).toEqual([]);
  });

  test('are not told by what the mesh covers', () => {
    const n = 120;
    const xs = Float32Array.from({ length: n }, (_, i) => (i * W) / n);
    const flat = (value: number): Float32Array => new Float32Array(n).fill(value);
    const wire: MeshWire = {
      family: 0,
      index: 0,
      xs,
      ys: xs.map(sagging),
      widths: flat(12),
      nx: flat(0),
      ny: flat(1),
      shown: new Uint8Array(n).fill(1),
    };
    expect(tensionLines(planeWith({ at: sagging }), [wire], LOOK)).toEqual([]);
  });
});
