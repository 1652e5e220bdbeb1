import type { DonorMap } from '@tersum/core';
import { toDisplay } from '@tersum/core';
import type { FillPlace, PictureEvent } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';

/** Rough fillings larger than this, px, are not worth the way to the page. */
const MOST_PIXELS = 1_000_000;

/** What a fill comes to so far, as news for the page. */
export async function roughlyFilled(
  { repair, original, below }: FillPlace,
  map: DonorMap,
  pool: WorkPool,
): Promise<PictureEvent> {
  const patch = await pool.run({ kind: 'replay', repair, map, original, below, elsewhere: {} });
  const { x, y, width, height } = patch.rect;
  if (width * height > MOST_PIXELS) throw new RangeError('too large to be shown on the way');
  const { channels, data } = toDisplay(patch.samples);
  const samples = new Uint8Array(4 * width * height);
  for (let p = 0; p < width * height; p++) {
    if (!patch.mask[p]) continue;
    for (let c = 0; c < 3; c++) samples[4 * p + c] = data[p * channels + (channels >= 3 ? c : 0)]!;
    samples[4 * p + 3] = 255;
  }
  return {
    type: 'rough',
    repairId: repair.id,
    x,
    y,
    width,
    height,
    samples: Buffer.from(samples.buffer).toString('base64'),
  };
}
