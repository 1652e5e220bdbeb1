import type { RefObject } from 'react';
import { useEffect } from 'react';
import { useBench } from '../model/context.js';
import type { Bench } from '../model/bench.js';
import type { BenchState } from '../model/state.js';
import type { TileStore } from './tile-store.js';

interface Watched {
  /** Drawn again only when one of these values changes, or a tile arrives while some are missing. */
  watch(state: BenchState): readonly unknown[];
  /** Waits so long after a change before drawing, ms: for canvases nobody looks at while working. */
  readonly patience?: number;
}

interface CanvasWork extends Watched {
  /** Draws in device px; `ratio` device px make a CSS px. @returns whether nothing that belongs there is still coming */
  paint(ctx: CanvasRenderingContext2D, ratio: number): boolean;
}

/** Keeps a canvas of one size drawn: once a frame at most. `work` must be stable. */
export function useCanvas(
  canvas: RefObject<HTMLCanvasElement | null>,
  size: { readonly width: number; readonly height: number },
  work: CanvasWork,
): void {
  const { bench, tiles } = useBench();
  useEffect(() => {
    const element = canvas.current;
    if (!element || !size.width || !size.height) return;
    const ratio = window.devicePixelRatio || 1;
    element.width = Math.round(size.width * ratio);
    element.height = Math.round(size.height * ratio);
    const ctx = element.getContext('2d', { alpha: false });
    if (!ctx) return;
    const { wake, stop } = keepDrawn(bench, tiles, work, () => {
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      return work.paint(ctx, ratio);
    });
    // What was scrolled or folded away may have put its drawing off.
    const seen = new IntersectionObserver((all) => {
      if (all.some((one) => one.isIntersecting)) wake();
    });
    seen.observe(element);
    return () => {
      seen.disconnect();
      stop();
    };
  }, [bench, tiles, canvas, size.width, size.height, work]);
}

/**
 * Draws now, and again when what is watched changes or a missing tile may have arrived, once a frame at most.
 * @param draw tells whether nothing that belongs there is still coming
 * @returns what has it look again whether anything is missing, and what ends it
 */
export function keepDrawn(
  bench: Bench,
  tiles: TileStore,
  { watch, patience }: Watched,
  draw: () => boolean,
): { wake: () => void; stop: () => void } {
  let frame = 0;
  let complete = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let seen: readonly unknown[] = [];
  const drawn = (): void => {
    frame = 0;
    complete = draw();
  };
  const soon = (): void => {
    if (patience) {
      clearTimeout(timer);
      timer = setTimeout(drawn, patience);
    } else if (!frame) frame = requestAnimationFrame(drawn);
  };
  const changed = (): void => {
    const now = watch(bench.store.getState());
    if (now.length === seen.length && now.every((v, i) => v === seen[i])) return;
    seen = now;
    soon();
  };
  changed();
  const wake = (): void => {
    if (!complete) soon();
  };
  const stops = [bench.store.subscribe(changed), tiles.onArrival(wake)];
  return {
    wake,
    stop: () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      stops.forEach((stop) => stop());
    },
  };
}
