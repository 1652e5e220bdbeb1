import type { Rect } from '../raster/rect.js';
import type { Levels, Size } from '../solve/levels.js';
import { LANES, openLevels } from '../solve/levels.js';
import type { Range } from '../task/crew.js';
import { MOST_RANGES, rangesOf } from '../task/crew.js';
import type { LaidCopies, Tones } from './laid-copies.js';
import { areDoubles } from './laid-copies.js';

/** The site pixels in a window of a picture as the unknowns of a system, in the copies' memory. */
export interface LaidPart {
  /** The 5-point Laplacian of the window: every neighbour known where it is not the site's. */
  readonly levels: Levels;
  /** The record that names it to the kernel. */
  readonly record: Int32Array;
  /** What is asked of its cells, zeros, and room for what comes of it: four values a cell. */
  readonly asked: Tones;
  readonly correction: Tones;
  /** Its rows and its cells, for threads to share. */
  readonly rows: readonly Range[];
  readonly cells: readonly Range[];
}

/** Room for parts, one after the other. */
export interface PartRoom {
  /** Lays out the part in one of the windows. Good until the next one is laid out. */
  lay(window: number): LaidPart;
  /** Room for each range's own sums, and for a word of each. */
  readonly scratch: Float64Array;
  readonly counts: Int32Array;
}

/** Pixels of the smallest range of rows, and cells of the smallest range of those. */
const LEAST_PIXELS = 8192;
const LEAST_CELLS = 8192;
/** Doubles that a range sums in: a line of caches to itself. */
const SCRATCH = 16;

/** Opens room for the parts in some windows of a picture. */
export function openParts(copies: LaidCopies, windows: readonly Rect[]): PartRoom {
  const { arena, run, picture } = copies;
  const highest = Math.max(...windows.map(({ height }) => height));
  const small = arena.more(8 * SCRATCH * MOST_RANGES + 4 * MOST_RANGES + 8 * highest + 12, 4);
  const [scratch, counts] = [small.doubles(SCRATCH * MOST_RANGES), small.words(MOST_RANGES)];
  const [firsts, record] = [small.words(2 * highest), small.words(3)];
  const parts = windows.map((window) => {
    const { x, y, width, height } = window;
    const rows = rangesOf(height, Math.ceil(LEAST_PIXELS / width));
    run('count', [copies.record, x, y, width, firsts], rows);
    // Runs are numbered from 0, cells from 1.
    let [runs, cells] = [0, 1];
    const first = firsts.slice(0, 2 * height);
    for (let k = 0; k < first.length; k += 2) {
      const here = [first[k]!, first[k + 1]!] as const;
      [first[k], first[k + 1]] = [runs, cells];
      runs += here[0];
      cells += here[1];
    }
    const size: Size = { width, height, runs, cells };
    return { window, rows, first, size };
  });
  const most = Math.max(...parts.map(({ size }) => size.cells));
  const levelRoom = openLevels(
    parts.map(({ size }) => size),
    arena,
  );
  const isDeep = areDoubles(picture);
  const values = arena.more(2 * (isDeep ? 8 : 4) * LANES * most, 2);
  const tones = (): Tones => (isDeep ? values.doubles : values.floats)(LANES * most);
  const [asked, correction] = [tones(), tones()];
  return {
    scratch,
    counts,
    lay: (k) => {
      const { window, rows, first, size } = parts[k]!;
      const levels = levelRoom.lay(size);
      record.set([levels.at[0]!, window.x, window.y]);
      firsts.set(first);
      run('lay', [copies.record, record, firsts], rows);
      levels.number();
      const cells = rangesOf(size.cells - 1, LEAST_CELLS).map(([from, to]): Range => [
        from + 1,
        to + 1,
      ]);
      const [asks, corrects] = [asked, correction].map((all) =>
        all.subarray(0, LANES * size.cells),
      ) as [Tones, Tones];
      asks.fill(0);
      return { levels, record, asked: asks, correction: corrects, rows, cells };
    },
  };
}
