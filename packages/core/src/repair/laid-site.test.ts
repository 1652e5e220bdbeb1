import type { DonorMap } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import { alone } from '../task/crew.js';
import { layOver } from './blend.js';
import { laySite } from './laid-site.js';
import { HEIGHT, KINDS, scene, WIDTH } from './plain/scene.js';

/** A map over a part of a scene that reaches beyond its left and lower borders, and the coverage of all of it. */
function mapOf({ copies, random }: Pick<ReturnType<typeof scene>, 'copies' | 'random'>) {
  const origin = { x: 40, y: 25, width: WIDTH, height: HEIGHT };
  const rect = { x: 36, y: 30, width: 50, height: 44 };
  const n = rect.width * rect.height;
  const [dx, dy] = [new Int16Array(n).fill(NOT_FILLED), new Int16Array(n).fill(NOT_FILLED)];
  const from = new Int32Array(WIDTH * HEIGHT).fill(-1);
  for (let i = 0; i < n; i++) {
    const x = (i % rect.width) - 4;
    const y = Math.floor(i / rect.width) + 5;
    const inside = x >= 0 && y < HEIGHT;
    const p = y * WIDTH + x;
    if (inside && copies.from[p]! < 0) continue;
    const source = inside ? copies.from[p]! : 0;
    if (inside) from[p] = source;
    dx[i] = (source % WIDTH) - x;
    dy[i] = Math.floor(source / WIDTH) - y;
  }
  const map: DonorMap = { rect, dx, dy, confidence: new Uint8Array(n) };
  const coverage = new Float32Array(from.length).map(() => 1.2 * random.unit() - 0.2);
  return { map, origin, from, coverage };
}

test.each(KINDS)(
  'a map is laid out, and its colour laid over, as they are defined: %s, %i channels',
  (depth, channels) => {
    const { picture, copies, white, random } = scene(depth, channels, 12);
    const { map, origin, from, coverage } = mapOf({ copies, random });
    const site = laySite(picture, map, origin, coverage, alone);
    expect(site.copies.sources).toEqual(from);
    expect(Array.from(site.mask)).toEqual(Array.from(from, (source) => (source < 0 ? 0 : 1)));
    const { colour } = site.copies;
    for (let i = 0; i < colour.length; i++) colour[i] = white * (1.4 * random.unit() - 0.2);
    const covered = coverage.map((share, p) => (from[p]! < 0 ? 0 : share));
    const wanted = layOver(picture, { data: colour.slice() }, covered, 0.8);
    expect(wanted.data).not.toEqual(picture.data);
    expect(site.laidOver(0.8)).toEqual(wanted);
  },
);

test('a source outside the picture is refused', () => {
  const made = scene('u8', 3, 12);
  const { map, origin, coverage } = mapOf(made);
  const k = map.dx.findIndex((d, i) => d !== NOT_FILLED && i % map.rect.width > 10);
  const astray = { ...map, dx: map.dx.map((d, i) => (i === k ? -WIDTH : d)) };
  const lay = (of: DonorMap) => laySite(made.picture, of, origin, coverage, alone);
  expect(() => lay(astray)).toThrow(RangeError);
  expect(lay(map).mask.includes(1)).toBe(true);
});
