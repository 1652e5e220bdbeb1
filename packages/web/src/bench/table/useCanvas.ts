import type { RefObject } from 'react';
import { useEffect } from 'react';
import { useBench } from '../model/context.js';
import type { BenchState } from '../model/state.js';

interface CanvasWork {
  /** Drawn again only when one of these values changes, or a tile arrives. */
  watch(state: BenchState): readonly unknown[];
  /** Draws in device px; `ratio` device px make a CSS px. */
  paint(ctx: CanvasRenderingContext2D, ratio: number): void;
  /** Waits so long after a change before drawing, ms: for canvases nobody looks at while working. */
  readonly patience?: number;
}

/** Keeps a canvas drawn: once a frame at most. `work` must be stable. */
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
    let frame = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let seen: readonly unknown[] = [];
    const draw = (): void => {
      frame = 0;
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      work.paint(ctx, ratio);
    };
    const soon = (): void => {
      if (work.patience) {
        clearTimeout(timer);
        timer = setTimeout(draw, work.patience);
      } else if (!frame) frame = requestAnimationFrame(draw);
    };
    const changed = (): void => {
      const now = work.watch(bench.store.getState());
      if (now.length === seen.length && now.every((v, i) => v === seen[i])) return;
      seen = now;
      soon();
    };
    changed();
    const stops = [bench.store.subscribe(changed), tiles.onArrival(soon)];
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      stops.forEach((stop) => stop());
    };
  }, [bench, tiles, canvas, size.width, size.height, work]);
}
