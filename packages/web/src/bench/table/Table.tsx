import { useEffect, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { useBench, useBenchState } from '../model/context.js';
import type { BenchState } from '../model/state.js';
import { paintCopyPreview } from './copy-preview.js';
import { Cursor } from './Cursor.js';
import { Marks } from './Marks.js';
import { paintPicture } from './paint.js';
import { SplitBar } from './SplitBar.js';
import { useGestures } from './gestures.js';
import { useCanvas } from './useCanvas.js';
import { fitted } from './viewport.js';

/** The table: the picture at working zoom, with the marks of what is being done to it. */
export function Table() {
  const { bench, tiles } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(frame);
  const surround = useBenchState((s) => s.surround);
  const picture = useBenchState((s) => s.records?.picture ?? null);
  const { width, height } = size;

  useEffect(() => {
    bench.set({ table: { width, height } });
    const { viewport } = bench.store.getState();
    if (picture && width && !viewport) bench.set({ viewport: fitted(picture, { width, height }) });
  }, [bench, picture, width, height]);

  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [
        s.viewport,
        s.view,
        s.preview,
        s.asReceived,
        s.split,
        s.surround,
        s.records,
        s.computing,
        s.saving,
        ...(s.tool.method === 'fill'
          ? []
          : [s.pointer, s.draft, s.tool, s.pickingDonor, s.selected]),
      ],
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const s = bench.store.getState();
        ctx.fillStyle = SURROUNDS[s.surround];
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        if (!s.records || !s.viewport) return;
        const { picture: shape } = s.records;
        const repaired = { kind: 'repaired', view: s.preview ?? s.view } as const;
        const state = s.asReceived ? ({ kind: 'original' } as const) : repaired;
        const complete = paintPicture(ctx, tiles, shape, state, s.viewport, s.table, ratio);
        if (s.split !== null && !s.asReceived) {
          ctx.save();
          ctx.beginPath();
          ctx.rect(0, 0, s.split * ctx.canvas.width, ctx.canvas.height);
          ctx.clip();
          paintPicture(ctx, tiles, shape, { kind: 'original' }, s.viewport, s.table, ratio);
          ctx.restore();
        }
        paintCopyPreview(ctx, tiles, s, ratio);
        // Tells from outside when everything that is to be seen has been drawn.
        const settled = complete && s.computing === null && s.saving === 0;
        ctx.canvas.dataset.settled = String(
          settled && s.view?.version === s.records.picture.version,
        );
      },
    }),
    [bench, tiles],
  );
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
      <canvas ref={canvas} />
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
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  &:focus-visible {
    outline-offset: -2px;
  }
`;
