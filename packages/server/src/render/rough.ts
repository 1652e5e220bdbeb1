import type { RoughFill } from '@tersum/core';
import type { PictureEvent } from '@tersum/document';

/** Rough fillings larger than this, px, are not worth the way to the page. */
const MOST_PIXELS = 250_000;

/** What a fill comes to so far, as news for the page; null when it is too much to send. */
export function roughNews(
  repairId: string,
  { rect, factor, samples }: RoughFill,
): PictureEvent | null {
  if (samples.length > 4 * MOST_PIXELS) return null;
  return {
    type: 'rough',
    repairId,
    x: rect.x,
    y: rect.y,
    factor,
    width: rect.width / factor,
    height: rect.height / factor,
    samples: Buffer.from(samples.buffer).toString('base64'),
  };
}
