import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { useBench } from '../model/context.js';
import type { BenchState } from '../model/state.js';
import { paintCopyPreview } from './copy-preview.js';
import { keepDrawn } from './useCanvas.js';

/** What a clone or graft is about to copy, over the picture: a canvas of its own, so that the table stays as it is drawn. */
export function CopyPreview() {
  const { bench, tiles } = useBench();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const watch = (s: BenchState) => [
      s.viewport,
      s.view,
      s.asReceived,
      s.records === null,
      s.sliding,
      ...(s.tool.method !== 'clone' && s.tool.method !== 'graft'
        ? []
        : [s.pointer, s.draft, s.pending, s.tool, s.pickingDonor, s.selected]),
    ];
    const { stop } = keepDrawn(bench, tiles, { watch }, () => {
      const ratio = window.devicePixelRatio || 1;
      return (
        !canvas.current || paintCopyPreview(canvas.current, tiles, bench.store.getState(), ratio)
      );
    });
    return stop;
  }, [bench, tiles]);
  return <Over ref={canvas} hidden aria-hidden />;
}

const Over = styled.canvas`
  position: absolute;
  top: 0;
  left: 0;
  pointer-events: none;
`;
