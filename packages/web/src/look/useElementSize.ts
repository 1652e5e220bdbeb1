import type { RefObject } from 'react';
import { useLayoutEffect, useState } from 'react';

/** Inner size of an element in CSS px, kept up to date. */
export function useElementSize(ref: RefObject<HTMLElement | null>): {
  width: number;
  height: number;
} {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width, height });
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [ref]);
  return size;
}
