import type { Rect } from '@tersum/core';
import { useEffect, useRef } from 'react';
import { useBench, useBenchState } from '../model/context.js';
import { shownCanvas } from '../model/state.js';
import type { Size } from './viewport.js';
import { fitted, sameSight } from './viewport.js';

/** Lays the picture on a table of a size: fitted at first, or close where it was asked for. */
export function useLaidOut({ width, height }: Size): void {
  const { bench } = useBench();
  const picture = useBenchState((s) => s.records?.picture ?? null);
  const canvas = useBenchState((s) => s.records && s.view && shownCanvas(s, s.records.picture));
  const laid = useRef<Rect | null>(null);
  useEffect(() => {
    const { viewport, table, openAt } = bench.store.getState();
    bench.set({ table: { width, height } });
    if (!picture || !width) return;
    if (!viewport && openAt)
      return bench.set({ viewport: { x: openAt[0], y: openAt[1], zoom: 1, turn: 0 } });
    // A picture that was fitted stays fitted when the card below grows or shrinks, and when it gets another canvas.
    const now = canvas ?? { x: 0, y: 0, width: picture.width, height: picture.height };
    const before = laid.current ?? now;
    laid.current = now;
    if (!viewport || sameSight(viewport, fitted(before, table, viewport.turn)))
      bench.set({ viewport: fitted(now, { width, height }, viewport?.turn ?? 0) });
  }, [bench, picture, width, height, canvas?.x, canvas?.y, canvas?.width, canvas?.height]);
}
