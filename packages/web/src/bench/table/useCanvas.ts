import type { RefObject } from 'react';
import { useEffect } from 'react';
import { useBench } from '../model/context.js';

/**
 * Keeps a canvas drawn: once a frame at most, whenever the bench's state changes or a tile arrives.
 * @param paint draws in device px; `ratio` device px make a CSS px
 */
export function useCanvas(
  canvas: RefObject<HTMLCanvasElement | null>,
  size: { readonly width: number; readonly height: number },
  paint: (ctx: CanvasRenderingContext2D, ratio: number) => void,
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
    const soon = (): void => {
      if (frame) return;
      frame = requestAnimationFrame(() => {
        frame = 0;
        ctx.setTransform(1, 0, 0, 1, 0, 0);
        paint(ctx, ratio);
      });
    };
    soon();
    const stops = [bench.store.subscribe(soon), tiles.onArrival(soon)];
    return () => {
      cancelAnimationFrame(frame);
      stops.forEach((stop) => stop());
    };
  }, [bench, tiles, canvas, size.width, size.height, paint]);
}
