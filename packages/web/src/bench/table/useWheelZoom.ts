import type { Point } from '@tersum/core';
import type { RefObject } from 'react';
import { useEffect } from 'react';
import { useBench } from '../model/context.js';
import { zoomedAt } from './viewport.js';

/** The wheel zooms at the pointer. */
export function useWheelZoom(frame: RefObject<HTMLElement | null>): void {
  const { bench } = useBench();
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    // React listens passively to the wheel; zooming must keep the page still.
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      const { viewport, table } = bench.store.getState();
      if (!viewport) return;
      const box = element.getBoundingClientRect();
      const at: Point = [event.clientX - box.left, event.clientY - box.top];
      const delta = event.deltaMode === 1 ? event.deltaY * 24 : event.deltaY;
      bench.set({ viewport: zoomedAt(viewport, table, at, 2 ** (-delta / 240)) });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [bench, frame]);
}
