import { useEffect } from 'react';
import { useBench, useBenchState } from '../model/context.js';
import type { Size } from './viewport.js';
import { fitted, sameSight } from './viewport.js';

/** Lays the picture on a table of a size: fitted at first, or close where it was asked for. */
export function useLaidOut({ width, height }: Size): void {
  const { bench } = useBench();
  const picture = useBenchState((s) => s.records?.picture ?? null);
  useEffect(() => {
    const { viewport, table, openAt } = bench.store.getState();
    bench.set({ table: { width, height } });
    if (!picture || !width) return;
    if (!viewport && openAt)
      return bench.set({ viewport: { x: openAt[0], y: openAt[1], zoom: 1, turn: 0 } });
    // A picture that was fitted stays fitted when the card below grows or shrinks.
    if (!viewport || sameSight(viewport, fitted(picture, table, viewport.turn)))
      bench.set({ viewport: fitted(picture, { width, height }, viewport?.turn ?? 0) });
  }, [bench, picture, width, height]);
}
