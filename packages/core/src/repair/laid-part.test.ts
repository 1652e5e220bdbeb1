import { colourChannels } from '../raster/raster.js';
import { cropMask } from '../shape/crop-mask.js';
import { LANES } from '../solve/levels.js';
import { laplacian } from '../solve/system.js';
import { DRIFT, ENDS, HELD, RIM, TINT } from './even-tones.js';
import { layCopies } from './laid-copies.js';
import { openParts } from './laid-part.js';
import { askPlainly } from './plain/ask.js';
import { correctPlainly, holdPlainly } from './plain/correct.js';
import { HEIGHT, KINDS, ROOMS, scene, WIDTH } from './plain/scene.js';

test.each(KINDS)(
  'what is laid out, asked, held and corrected agrees with the plain twins: %s, %i channels',
  (depth, channels) => {
    const { picture, copies, white, random } = scene(depth, channels, 5);
    const laid = layCopies(picture, copies.from);
    const parts = openParts(laid, ROOMS);
    const { scratch, counts } = parts;
    ROOMS.forEach((room, k) => {
      const { levels, record, asked, correction, rows, cells } = parts.lay(k);
      const { system } = levels;
      const plain = laplacian(cropMask(copies.mask, WIDTH, room), room.width, room.height);
      expect(system).toEqual(plain);
      laid.run('ask', [laid.record, record, 0.01, RIM, ENDS * white, scratch, asked], rows);
      const wanted = asked.slice().fill(0);
      askPlainly(picture, copies.from, room, plain, 0.01, wanted);
      expect(asked).toEqual(wanted);
      expect(wanted.some((v) => v !== 0)).toBe(true);
      expect(system).toEqual(plain);

      for (let i = 0; i < correction.length; i++)
        correction[i] = (random.unit() - 0.5) * white * (i % (9 * LANES) < LANES ? 0.6 : 0.01);
      const colours = colourChannels(channels);
      const limits = [DRIFT * white, TINT * white, HELD];
      laid.run('hold', [record, correction, colours, ...limits, counts], cells);
      const many = counts.subarray(0, cells.length).reduce((sum, count) => sum + count, 0);
      expect(many).toBe(holdPlainly(plain, correction, colours, white));
      expect(many).toBeGreaterThan(0);
      expect(system.own).toEqual(plain.own);

      const colour = laid.colour.slice();
      laid.run('correct', [laid.record, record, correction, laid.colour], rows);
      correctPlainly(picture, copies.from, room, plain, correction, colour);
      expect(laid.colour).toEqual(colour);
    });
  },
);

test('rows are counted, numbered and asked in any ranges', () => {
  const { picture, copies } = scene('u8', 3, 6);
  const whole = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  const laid = layCopies(picture, copies.from);
  const asIt = openParts(laid, [whole]).lay(0);
  expect(asIt.rows).toHaveLength(1);
  // The same calls, row by row and the last row first.
  const cut = layCopies(picture, copies.from, {
    threads: 1,
    run: (room, name, args, ranges) => {
      const call = (room.exports as Record<string, (...args: number[]) => void>)[name]!;
      for (const [from, to] of ranges)
        for (let y = to - 1; y >= from; y--) call(...args, 0, y, y + 1);
    },
  });
  const parts = openParts(cut, [whole]);
  const part = parts.lay(0);
  expect(part.levels.system).toEqual(asIt.levels.system);
  const [one, other] = [laid, cut].map((of, k) => {
    const { record, asked, rows } = [asIt, part][k]!;
    of.run('ask', [of.record, record, 0, RIM, ENDS * 255, parts.scratch, asked], rows);
    return asked;
  });
  expect(one!.some((v) => v !== 0)).toBe(true);
  expect(other).toEqual(one);
});
