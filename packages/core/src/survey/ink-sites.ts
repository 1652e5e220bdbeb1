import type { Layer } from '../raster/layers.js';
import type { InkStrokes } from './ink-letters.js';
import { LETTERS, lettersIn } from './ink-letters.js';
import type { Stretch } from './ink-stroke.js';
import { breadthsOf, stretchOf, SURELY } from './ink-stroke.js';
import type { Piece } from './pieces.js';
import { gathered } from './pieces.js';

/** Levels within which a pixel may be of an ink, half covered. */
const PERHAPS = 70;
/** By how much the colour of a soft edge goes on changing from px to px, levels: ground like the ink does not. */
const SLOPE = 5;
/** How far beyond what was found of an ink more of it is looked for, breadths, and how many times. */
const [AROUND, ROUNDS] = [10, 4];

/**
 * Where an ink lies: all its letters in the stretch its strokes take up, and in what is beside them. Letters near each other
 * are one site.
 * @returns sites, pixels in reading order; `taken` is marked
 */
export function inkSites(layer: Layer, ink: InkStrokes, taken: Uint8Array): Int32Array[] {
  const { width, height } = layer.grey;
  const { off } = ink;
  const { breadth } = breadthsOf(ink.strokes);
  let stretch = stretchOf(ink.strokes, AROUND * breadth, width, height);
  let letters = lettersIn(layer, ink, stretch, taken);
  for (let round = 1; round < ROUNDS; round++) {
    const wider = widerFor(letters, stretch, AROUND * breadth, { width, height });
    if (!wider) break;
    stretch = wider;
    letters = lettersIn(layer, ink, stretch, taken);
  }
  return gathered(letters, LETTERS * breadth).map((group) => {
    const site = withSoftEdge(
      group.flatMap(({ pixels }) => [...pixels]),
      (p, beyond) =>
        off(p) <= Math.max(PERHAPS, 2 * ink.loose * SURELY) && off(beyond) >= off(p) + SLOPE,
      taken,
      { width, height },
    );
    for (const p of site) taken[p] = 1;
    return site;
  });
}

/** A stretch with so much more round letters; null where there is none that it lacks. */
function widerFor(
  letters: readonly Piece[],
  stretch: Stretch,
  more: number,
  { width, height }: { width: number; height: number },
): Stretch | null {
  const wider: { -readonly [K in keyof Stretch]: number } = { ...stretch };
  for (const { left, top, right, bottom } of letters) {
    wider.left = Math.max(0, Math.min(wider.left, Math.floor(left - more)));
    wider.top = Math.max(0, Math.min(wider.top, Math.floor(top - more)));
    wider.right = Math.min(width - 1, Math.max(wider.right, Math.ceil(right + more)));
    wider.bottom = Math.min(height - 1, Math.max(wider.bottom, Math.ceil(bottom + more)));
  }
  const isSame = (['left', 'top', 'right', 'bottom'] as const).every(
    (k) => wider[k] === stretch[k],
  );
  return isSame ? null : wider;
}

function withSoftEdge(
  pixels: readonly number[],
  may: (p: number, beyond: number) => boolean,
  taken: Uint8Array,
  { width, height }: { width: number; height: number },
): Int32Array {
  const found = new Set(pixels);
  let edge = [...pixels];
  for (let round = 0; round < 3; round++) {
    const next: number[] = [];
    for (const p of edge) {
      const x = p % width;
      for (const q of [x > 0 ? p - 1 : -1, x < width - 1 ? p + 1 : -1, p - width, p + width]) {
        if (q < 0 || q >= width * height || taken[q] || found.has(q)) continue;
        const beyond = Math.max(0, Math.min(width * height - 1, 2 * q - p));
        // The first px outward is always half covered.
        if (round > 0 && !found.has(beyond) && !may(q, beyond)) continue;
        found.add(q);
        next.push(q);
      }
    }
    edge = next;
  }
  return Int32Array.from(found).sort();
}
