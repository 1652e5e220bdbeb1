import type { Layer } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import { sampleAt } from '../raster/plane.js';

/**
 * How near the colours of a picture are to that of bare paper, 255 for the same: white paper shows in a yellowed sky
 * as clearly as in dark ground.
 */
export interface Paper {
  readonly width: number;
  readonly height: number;
  /** Bilinear, the border repeated outward. */
  at(x: number, y: number): number;
}

/**
 * Paper of the colour there is along a line. Told where it is asked for: of a whole picture a crease asks little.
 * @param line px, where bare paper shows
 */
export function paperLike(
  { grey, colours }: Layer,
  line: { readonly xs: Float32Array; readonly ys: Float32Array },
): Paper {
  const planes = colours.length ? colours : [grey];
  const paper = planes.map((plane) =>
    medianOf(Array.from(line.xs, (x, i) => sampleAt(plane, x, line.ys[i]!))),
  );
  return {
    width: grey.width,
    height: grey.height,
    at: (x, y) => {
      let far = 0;
      for (let c = 0; c < planes.length; c++) {
        const off = Math.abs(sampleAt(planes[c]!, x, y) - paper[c]!);
        if (off > far) far = off;
      }
      return 255 - far;
    },
  };
}
