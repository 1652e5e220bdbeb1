import { nodesAlong, SQUARE } from '../predict/tile.js';
import { seededRandom } from '../random/random.js';
import type { Channels, Depth } from '../raster/raster.js';
import { colourChannels, createRaster, whiteOf } from '../raster/raster.js';
import { cropMask } from '../shape/crop-mask.js';
import { LANES } from '../solve/levels.js';
import { laplacian } from '../solve/system.js';
import { DRIFT, ENDS, HELD, RIM, TINT } from './even-tones.js';
import { layCopies, layPart } from './laid-copies.js';
import { askPlainly } from './plain/ask.js';
import { correctPlainly, holdPlainly } from './plain/correct.js';
import { addMisfitPlainly } from './plain/misfit.js';

const [WIDTH, HEIGHT] = [61, 47];
/** Window of the part, at the picture's corner and within it. */
const ROOMS = [
  { x: 0, y: 0, width: 30, height: 26 },
  { x: 21, y: 12, width: 40, height: 35 },
];

/** Noise with a ragged site that reaches the borders, copied in patches from wherever there is no site. */
function scene(depth: Depth, channels: Channels, seed: number) {
  const random = seededRandom(seed);
  const picture = createRaster(WIDTH, HEIGHT, channels, depth);
  const white = whiteOf(picture.data);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.unit() * white;
  const mask = new Uint8Array(WIDTH * HEIGHT);
  for (let p = 0; p < mask.length; p++) mask[p] = random.unit() < 0.4 ? 1 : 0;
  mask.fill(1, 5 * WIDTH + 8, 5 * WIDTH + 20);
  const free = [...mask.keys()].filter((p) => !mask[p]);
  let shift = 0;
  const from = Int32Array.from(mask, (inside, p) => {
    if (!inside) return -1;
    if (random.unit() < 0.3) shift = free[random.between(0, free.length - 1)]! - p;
    const source = p + shift;
    return source >= 0 && source < mask.length && !mask[source] ? source : free[0]!;
  });
  return { picture, copies: { from, mask }, white, random };
}

const KINDS: [Depth, Channels][] = [
  ['u8', 3],
  ['u8', 1],
  ['u16', 4],
  ['f32', 2],
];

test.each(KINDS)(
  'what is asked, held and corrected agrees with the plain twins: %s, %i channels',
  (depth, channels) => {
    for (const room of ROOMS) {
      const { picture, copies, white, random } = scene(depth, channels, 5 + room.x);
      const laid = layCopies(picture, copies, WIDTH * HEIGHT);
      const fresh = () => laplacian(cropMask(copies.mask, WIDTH, room), room.width, room.height);
      const { system, asked, correction } = layPart(laid, room, fresh());
      const { part, kernel, at } = laid;
      const [here, sums, held] = [part.record, part.sums, part.held].map((a) => a.byteOffset);
      kernel.ask(at, here!, 0.01, RIM, ENDS * white, sums!, held!, asked.byteOffset);
      const plain = fresh();
      const wanted = asked.slice().fill(0);
      askPlainly(picture, copies.from, room, plain, 0.01, wanted);
      expect(asked).toEqual(wanted);
      expect(wanted.some((v) => v !== 0)).toBe(true);
      expect(system.own).toEqual(plain.own);
      expect(system.right).toEqual(plain.right);
      expect(system.below).toEqual(plain.below);

      for (let i = 0; i < correction.length; i++)
        correction[i] = (random.unit() - 0.5) * white * (i % (9 * LANES) < LANES ? 0.6 : 0.01);
      const colours = colourChannels(channels);
      const many = kernel.hold(
        here!,
        correction.byteOffset,
        colours,
        DRIFT * white,
        TINT * white,
        HELD,
      );
      expect(many).toBe(holdPlainly(plain, correction, colours, white));
      expect(many).toBeGreaterThan(0);
      expect(system.own).toEqual(plain.own);

      const colour = laid.colour.slice();
      kernel.correct(at, here!, correction.byteOffset, laid.colour.byteOffset);
      correctPlainly(picture, copies.from, room, plain, correction, colour);
      expect(laid.colour).toEqual(colour);
    }
  },
);

test.each(KINDS)('misfit agrees with its plain twin: %s, %i channels', (depth, channels) => {
  for (const piece of ROOMS) {
    const { picture, copies } = scene(depth, channels, 9 + piece.x);
    const laid = layCopies(picture, copies, 0);
    const wide = nodesAlong(piece.width);
    const nodes = wide * nodesAlong(piece.height);
    const [unlike, steps] = [laid.unlike, laid.steps].map((sums) => sums.byteOffset);
    const { x, y, width, height } = piece;
    laid.kernel.misfit(laid.at, x, y, width, height, SQUARE, wide, unlike!, steps!);
    const plain = { unlike: new Float64Array(nodes), steps: new Float64Array(nodes) };
    addMisfitPlainly(picture, copies, piece, plain);
    expect(laid.unlike.subarray(0, nodes)).toEqual(plain.unlike);
    expect(laid.steps.subarray(0, nodes)).toEqual(plain.steps);
    expect(plain.steps.some((v) => v > 0)).toBe(true);
  }
});
