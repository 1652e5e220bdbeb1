import { useCallback, useRef } from 'react';
import styled from 'styled-components';
import { look, SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { Figure } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import { paintPicture } from '../table/paint.js';
import { useCanvas } from '../table/useCanvas.js';
import { fitted, toPicture, toScreen } from '../table/viewport.js';
import { SightName } from './Sight.js';

/** The whole picture, small, with the part that is on the table; a click goes there. */
export function FarView() {
  const { bench, tiles } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(frame);
  const { width, height } = size;
  const picture = useBenchState((s) => s.records?.picture ?? null);
  const paint = useCallback(
    (ctx: CanvasRenderingContext2D, ratio: number) => {
      const s = bench.store.getState();
      ctx.fillStyle = SURROUNDS[s.surround];
      ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
      if (!s.records) return;
      const sight = fitted(s.records.picture, { width: width + 20, height: height + 20 });
      const state = s.asReceived
        ? ({ kind: 'original' } as const)
        : ({ kind: 'repaired', view: s.preview ?? s.view } as const);
      paintPicture(ctx, tiles, s.records.picture, state, sight, { width, height }, ratio);
      if (!s.viewport) return;
      ctx.beginPath();
      const { table } = s;
      for (const corner of [
        [0, 0],
        [table.width, 0],
        [table.width, table.height],
        [0, table.height],
      ] as const) {
        const [x, y] = toScreen(sight, { width, height }, toPicture(s.viewport, table, corner));
        ctx.lineTo(x * ratio, y * ratio);
      }
      ctx.closePath();
      ctx.lineWidth = 3 * ratio;
      ctx.strokeStyle = 'rgb(255 255 255 / 80%)';
      ctx.stroke();
      ctx.lineWidth = ratio;
      ctx.strokeStyle = look.ink;
      ctx.stroke();
    },
    [bench, tiles, width, height],
  );
  useCanvas(canvas, size, paint);
  return (
    <Box aria-label="Far view">
      <SightName>
        <span>Far view</span>
        {picture && (
          <Figure>
            {picture.width} × {picture.height}
          </Figure>
        )}
      </SightName>
      <Window
        ref={frame}
        onPointerDown={(event) => {
          const { records, viewport } = bench.store.getState();
          if (!records || !viewport) return;
          const box = event.currentTarget.getBoundingClientRect();
          const sight = fitted(records.picture, { width: width + 20, height: height + 20 });
          const at = [event.clientX - box.left, event.clientY - box.top] as const;
          const [x, y] = toPicture(sight, { width, height }, at);
          bench.set({ viewport: { ...viewport, x, y } });
        }}
      >
        <canvas ref={canvas} />
      </Window>
    </Box>
  );
}

const Box = styled.figure`
  margin: 0;
  border-top: 1px solid ${look.hairline};
  ${Figure} {
    font-size: 11px;
  }
`;

const Window = styled.div`
  position: relative;
  height: 168px;
  overflow: hidden;
  cursor: crosshair;
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
`;
