import type { Point } from '@tersum/core';
import type { Site } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import { lineToItsEnds, measureLine, outlineThing } from '../../api/pictures.js';
import type { Bench } from './bench.js';

/** Least that a stroke stands over the line it covers, px. */
const FRINGE = 3;

const SOFTEST_LINE = 0.2;
/** Share of a soft border that does not cover what lies under it. */
const THIN_BORDER = 0.6;

/**
 * Width of stroke for a line that was measured: 1.1-1.3 x its width and at least 2 px over it (common practice), and
 * more for a soft stroke, whose border lets the line shine through.
 */
export function widthForLine(measured: number, softness = 0): number {
  const hard = Math.max(measured * 1.3, measured + FRINGE);
  return Math.round(hard / (1 - THIN_BORDER * softness));
}

/** Adds a corner to the chain being drawn, and measures the run that ends there. */
export function addToChain(bench: Bench, at: Point): void {
  const { draft } = bench.store.getState();
  if (draft?.site.kind !== 'chain') {
    bench.set({ draft: { ...BARE, site: chainOf([at], []), widths: [0] } });
    return;
  }
  const { points, bends } = draft.site;
  const from = points.at(-1)!;
  bench.set({
    draft: {
      site: chainOf([...points, [at[0], at[1]]], [...bends, 0]),
      measured: draft.measured,
      widths: [...draft.widths, 0],
      measuring: draft.measuring + 1,
    },
  });
  measureLine(bench.store.getState().pictureId, from, at)
    .catch(() => null)
    .then((line) => {
      const now = bench.store.getState().draft;
      if (now?.site.kind !== 'chain') return;
      const { points: corners, bends: bows } = now.site;
      const end = corners.findIndex(([x, y]) => x === at[0] && y === at[1]);
      const draft = { ...now, measuring: now.measuring - 1 };
      if (!line || end < 1) return bench.set({ draft });
      const before = Math.max(0, end - 1);
      // Where two runs meet the wider measure counts.
      const last = line.widths.length - 1;
      const own = line.widths.map((w, k) =>
        Math.max(w, k === 0 ? now.widths[before]! : 0, k === last ? now.widths[end]! : 0),
      );
      // The clicked run gives way to the runs that were found; its neighbours keep their corners.
      bench.set({
        draft: {
          ...draft,
          site: chainOf(
            [...corners.slice(0, before), ...line.points, ...corners.slice(end + 1)],
            [...bows.slice(0, end - 1), ...line.bends, ...bows.slice(end)],
          ),
          measured: [...now.measured, line.width],
          widths: [...now.widths.slice(0, before), ...own, ...now.widths.slice(end + 1)],
        },
      });
    });
}

/** Follows the line of the chain being drawn to where it ends. */
export async function continueChain(bench: Bench): Promise<void> {
  await measured(bench);
  const { draft, pictureId } = bench.store.getState();
  if (draft?.site.kind !== 'chain' || !draft.measured.length) return;
  const widest = Math.max(...draft.measured);
  const { points, bends } = draft.site;
  bench.set({ draft: { ...draft, measuring: 1 } });
  try {
    const line = await lineToItsEnds(pictureId, {
      points,
      bends,
      widths: draft.widths.map((w) => w || widest),
    });
    bench.set({
      draft: {
        site: chainOf(line.points, line.bends),
        measured: [...draft.measured, Math.max(...line.widths)],
        widths: line.widths,
        measuring: 0,
      },
      ...(line.points.length === points.length
        ? { notice: 'The line goes no further at either end.' }
        : {}),
    });
  } catch (error) {
    bench.set({ draft, notice: messageOf(error) });
  }
}

/** Ends the chain or outline being drawn and mends it. */
export async function finishDraft(bench: Bench): Promise<void> {
  await measured(bench);
  const { draft } = bench.store.getState();
  bench.set({ draft: null });
  if (!draft) return;
  const { site } = draft;
  if (site.kind === 'chain' && site.points.length >= 2) {
    // A border much softer than this would let the line shine through, or make the stroke far too wide.
    const softness = Math.min(bench.store.getState().tool.softness, SOFTEST_LINE);
    if (!draft.measured.length) return bench.mend(site);
    const widest = widthForLine(Math.max(...draft.measured), softness);
    bench.setTool({ width: widest, softness });
    await bench.mend(tapered(site, draft.widths, widest, softness), widest);
  } else if (site.kind === 'outline' && site.points.length >= 3) await bench.mend(site);
}

/** A chain as wide at every corner as its line asks for there. */
function tapered(
  site: Extract<Site, { kind: 'chain' }>,
  widths: readonly number[],
  widest: number,
  softness: number,
): Site {
  const shares = site.points.map((_, k) =>
    widths[k] ? Math.min(1, widthForLine(widths[k], softness) / widest) : 1,
  );
  return shares.some((s) => s < 1) ? { ...site, shares } : site;
}

/** Finds the outline of the thing that was scribbled on, and mends it. */
export async function outlineDrawnThing(bench: Bench, scribble: readonly Point[]): Promise<void> {
  try {
    const found = await outlineThing(
      bench.store.getState().pictureId,
      scribble.map(([x, y]) => [x, y]),
    );
    bench.set({ draft: null });
    if (found && found.length >= 3) await bench.mend({ kind: 'outline', points: found });
    else bench.set({ notice: 'No outline was found there. Scribble over more of the thing.' });
  } catch (error) {
    bench.set({ draft: null, notice: messageOf(error) });
  }
}

/** Resolves when no measurement of the draft is on its way any more. */
function measured(bench: Bench): Promise<void> {
  return new Promise((resolve) => {
    const done = (): boolean => !bench.store.getState().draft?.measuring;
    if (done()) return resolve();
    const stop = bench.store.subscribe(() => {
      if (!done()) return;
      stop();
      resolve();
    });
  });
}

/** Nothing measured yet. */
export const BARE = { measured: [], widths: [], measuring: 0 } as const;

function chainOf(
  points: readonly Point[],
  bends: readonly number[],
): Extract<Site, { kind: 'chain' }> {
  return { kind: 'chain', points: points.map(([x, y]) => [x, y]), bends: [...bends] };
}
