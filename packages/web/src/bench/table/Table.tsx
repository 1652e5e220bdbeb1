import type { View } from '@tersum/document';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { useBench, useBenchState } from '../model/context.js';
import type { BenchState } from '../model/state.js';
import { CopyPreview } from './CopyPreview.js';
import { Cursor } from './Cursor.js';
import { FindingMarks } from './FindingMarks.js';
import { TellMarks } from './TellMarks.js';
import { Marks } from './Marks.js';
import { paintOverlay, paintPicture } from './paint.js';
import { SplitBar } from './SplitBar.js';
import { useGestures } from './gestures.js';
import { useCanvas } from './useCanvas.js';
import { useLaidOut } from './useLaidOut.js';

/** The table: the picture at working zoom, with the marks of what is being done to it. */
export function Table() {
  const { bench, tiles } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(frame);
  const surround = useBenchState((s) => s.surround);

  useLaidOut(size);

  /** The view that was drawn last with nothing missing. */
  const drawn = useRef<View | null>(null);
  /** Tells from outside when everything that is to be seen has been drawn, and when a rough filling is. */
  const tellSettled = useCallback(() => {
    const { view, records, computing, saving, rough } = bench.store.getState();
    const shown = view !== null && drawn.current === view ? view.version : null;
    const settled =
      computing === null && saving === 0 && shown !== null && shown === records?.picture.version;
    const { dataset } = canvas.current ?? {};
    if (dataset && dataset.settled !== String(settled)) dataset.settled = String(settled);
    if (dataset && dataset.rough !== String(rough !== null)) dataset.rough = String(rough !== null);
  }, [bench]);

  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [
        s.viewport,
        s.view,
        s.preview,
        s.asReceived,
        s.split,
        s.surround,
        s.records === null,
        s.rough,
        s.heat,
      ],
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const s = bench.store.getState();
        ctx.fillStyle = SURROUNDS[s.surround];
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        if (!s.records || !s.viewport) return false;
        const { picture: shape } = s.records;
        const repaired = { kind: 'repaired', view: s.preview ?? s.view } as const;
        const state = s.asReceived ? ({ kind: 'original' } as const) : repaired;
        let complete = paintPicture(ctx, tiles, shape, state, s.viewport, s.table, ratio);
        drawn.current = complete ? s.view : null;
        for (const overlay of s.asReceived ? [] : [s.rough, s.heat])
          if (overlay) paintOverlay(ctx, overlay, s.viewport, s.table, ratio);
        if (s.split !== null && !s.asReceived) {
          ctx.save();
          ctx.beginPath();
          ctx.rect(0, 0, s.split * ctx.canvas.width, ctx.canvas.height);
          ctx.clip();
          const received = { kind: 'original' } as const;
          complete =
            paintPicture(ctx, tiles, shape, received, s.viewport, s.table, ratio) && complete;
          ctx.restore();
        }
        tellSettled();
        return complete;
      },
    }),
    [bench, tiles, tellSettled],
  );
  useEffect(() => bench.store.subscribe(tellSettled), [bench, tellSettled]);
  useCanvas(canvas, size, work);
  const gestures = useGestures(frame);

  return (
    <Frame
      ref={frame}
      $surround={SURROUNDS[surround]}
      role="application"
      aria-label="Table: the picture"
      tabIndex={0}
      {...gestures}
    >
      <Picture ref={canvas} />
      <CopyPreview />
      <FindingMarks />
      <TellMarks />
      <Marks />
      <Cursor />
      <SplitBar />
    </Frame>
  );
}

const Frame = styled.div<{ $surround: string }>`
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  background: ${(p) => p.$surround};
  touch-action: none;
  user-select: none;
  &:focus-visible {
    outline-offset: -2px;
  }
`;

const Picture = styled.canvas`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
`;
