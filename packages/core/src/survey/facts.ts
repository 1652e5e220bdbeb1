import { ciede2000 } from '../colour/ciede2000.js';
import { labOfSrgb } from '../colour/lab.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Finding } from './finding.js';

type Facts = Pick<Finding, 'contrast' | 'nearEdge' | 'polarity'>;

/** The ring a site is compared with: from and to, px. */
const RING = { from: 2, to: 5 } as const;
/** Edges are looked for so far out, px; they are strong from this CIEDE2000 on, over half this distance. */
const SIGHT = 24;
const STRONG = 14;
const SPAN = 2;
/** Pixels of a site, and places around it, that are asked at most. */
const ASKED = 400;
const DIRECTIONS = 16;

/** Measures findings against a picture; what one of them covers is no ring to another. */
export function factsReader(
  picture: Raster,
  covered: Uint8Array,
): (pixels: Int32Array, box: Rect) => Facts {
  const { width, height, channels, data } = picture;
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const meanLab = (list: readonly number[]): ReturnType<typeof labOfSrgb> => {
    const sum = [0, 0, 0];
    for (const p of list)
      for (let c = 0; c < 3; c++)
        sum[c]! += data[p * channels + (colours === 1 ? 0 : c)]! / white / list.length;
    return labOfSrgb(sum[0]!, sum[1]!, sum[2]!);
  };
  const ringOf = (some: readonly number[]): number[] => {
    const ring: number[] = [];
    for (const p of some) {
      const [x, y] = [p % width, (p / width) | 0];
      for (let k = 0; k < DIRECTIONS; k++) {
        const angle = (2 * Math.PI * k) / DIRECTIONS;
        const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
        // Outward along a direction until the site is left, then a little further.
        for (let r = 1, out = 0; r < SIGHT; r++) {
          const [qx, qy] = [Math.round(x + r * dx), Math.round(y + r * dy)];
          if (qx < 0 || qy < 0 || qx >= width || qy >= height) break;
          const q = qy * width + qx;
          out = covered[q] ? 0 : out + 1;
          if (out >= RING.from) ring.push(q);
          if (out >= RING.to) break;
        }
      }
      if (ring.length > 4 * ASKED) break;
    }
    return ring;
  };
  return (pixels, box) => {
    const every = Math.max(1, Math.floor(pixels.length / ASKED));
    const some = Array.from(
      { length: Math.ceil(pixels.length / every) },
      (_, k) => pixels[k * every]!,
    );
    const ring = ringOf(some.filter((_, k) => k % Math.ceil(some.length / 60) === 0));
    const [own, around] = [meanLab(some), meanLab(ring)];
    return {
      contrast: ring.length ? ciede2000(own, around) : 0,
      nearEdge: edgeNear(box),
      polarity: own.L >= around.L ? 1 : -1,
    };
  };

  /** The strong edge nearest to a box, looked for outward from its sides. */
  function edgeNear(box: Rect): Finding['nearEdge'] {
    let best: Finding['nearEdge'] = null;
    const stepX = Math.max(3, Math.round(box.width / 6));
    const stepY = Math.max(3, Math.round(box.height / 6));
    const look = (x: number, y: number, dx: number, dy: number): void => {
      for (let r = SPAN + 1; r < (best?.distance ?? SIGHT); r += 2) {
        const [ax, ay] = [x + (r - SPAN) * dx, y + (r - SPAN) * dy];
        const [bx, by] = [x + (r + SPAN) * dx, y + (r + SPAN) * dy];
        if (Math.min(ax, ay, bx, by) < 0 || Math.max(ax, bx) >= width || Math.max(ay, by) >= height)
          return;
        const [a, b] = [ay * width + ax, by * width + bx];
        if (covered[a] || covered[b]) continue;
        const contrast = ciede2000(meanLab([a]), meanLab([b]));
        if (contrast >= STRONG) {
          best = { distance: r, contrast };
          return;
        }
      }
    };
    for (let x = box.x; x < box.x + box.width; x += stepX) {
      look(x, box.y, 0, -1);
      look(x, box.y + box.height - 1, 0, 1);
    }
    for (let y = box.y; y < box.y + box.height; y += stepY) {
      look(box.x, y, -1, 0);
      look(box.x + box.width - 1, y, 1, 0);
    }
    return best;
  }
}
