import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { floats, tabulated } from './floats.js';
import { lookupOf } from './lookup.js';

const random = seededRandom(3);

for (const depth of ['u8', 'u16'] as const)
  for (const channels of [1, 3, 4] as const) {
    const picture = createRaster(7, 5, channels, depth);
    const white = depth === 'u8' ? 255 : 65535;
    picture.data.forEach((_, i) => (picture.data[i] = random.between(0, white)));
    const tables = [1, 2, 3].map((power) => lookupOf((v) => v ** power));

    test(`${depth}, ${channels} channels: a table a channel says what its function does`, () => {
      const out = tabulated(picture, tables);
      const colours = channels === 1 ? 1 : 3;
      expect(out.channels).toBe(colours);
      out.data.forEach((v, o) => {
        const code = picture.data[Math.floor(o / colours) * channels + (o % colours)]!;
        expect(v).toBeCloseTo((code / white) ** ((o % colours) + 1), 4);
      });
    });

    test(`${depth}, ${channels} channels: samples that are used again hold the same as fresh ones`, () => {
      const fresh = tabulated(picture, tables);
      const used = new Float32Array(fresh.data.length).fill(7);
      expect(tabulated(picture, tables, used).data).toBe(used);
      expect(used).toEqual(fresh.data);
      expect(floats(picture, used).data).toBe(used);
      expect(used).toEqual(floats(picture).data);
      // Of another size they are left alone.
      const other = new Float32Array(3).fill(7);
      expect(floats(picture, other).data).not.toBe(other);
      expect([...other]).toEqual([7, 7, 7]);
    });
  }
