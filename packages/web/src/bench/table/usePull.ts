import type { Point } from '@tersum/core';
import type { PointerEvent } from 'react';
import { useRef } from 'react';
import { useBench } from '../model/context.js';

/**
 * Dragging of a mark on the table, in picture px.
 * @param onMove called with the way gone since the press
 * @param onDrop called once at the end, not when nothing moved
 */
export function usePull(onMove: (by: Point) => void, onDrop: (by: Point) => void) {
  const { bench } = useBench();
  const from = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  const way = (event: PointerEvent): Point => {
    const { viewport } = bench.store.getState();
    const start = from.current!;
    const a = ((viewport?.turn ?? 0) * Math.PI) / 180;
    const dx = (event.clientX - start.x) / (viewport?.zoom ?? 1);
    const dy = (event.clientY - start.y) / (viewport?.zoom ?? 1);
    return [Math.cos(a) * dx - Math.sin(a) * dy, Math.sin(a) * dx + Math.cos(a) * dy];
  };
  return {
    onPointerDown(event: PointerEvent<Element>) {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { x: event.clientX, y: event.clientY, moved: false };
    },
    onPointerMove(event: PointerEvent<Element>) {
      if (!from.current) return;
      event.stopPropagation();
      from.current.moved = true;
      onMove(way(event));
    },
    onPointerUp(event: PointerEvent<Element>) {
      if (!from.current) return;
      event.stopPropagation();
      const { moved } = from.current;
      const by = way(event);
      from.current = null;
      if (moved) onDrop(by);
    },
  };
}
