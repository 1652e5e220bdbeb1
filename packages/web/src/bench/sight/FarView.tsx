import type { Rect } from '@tersum/core';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { look, SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { Figure } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';
import type { BenchState } from '../model/state.js';
import { shownCanvas } from '../model/state.js';
import { paintPicture } from '../table/paint.js';
import { useCanvas } from '../table/useCanvas.js';
import type { Size, Viewport } from '../table/viewport.js';
import { fitted, toPicture, toScreen } from '../table/viewport.js';
import { SightName } from './SightName.js';

/** The whole picture, small, with the part that is on the table; a click goes there. */
export function FarView() {
  const { bench, tiles } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(frame);
  const { width, height } = size;
  const picture = useBenchState((s) => s.records && shownCanvas(s, s.records.picture));
  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [s.view, s.preview, s.asReceived, s.surround, s.records === null],
      patience: 40,
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const s = bench.store.getState();
        ctx.fillStyle = SURROUNDS[s.surround];
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        if (!s.records) return false;
        const sight = sightOf(shownCanvas(s, s.records.picture), { width, height });
        const state = s.asReceived
          ? ({ kind: 'original' } as const)
          : ({ kind: 'repaired', view: s.preview ?? s.view } as const);
        return paintPicture(ctx, tiles, s.records.picture, state, sight, { width, height }, ratio);
      },
    }),
    [bench, tiles, width, height],
  );
  useCanvas(canvas, size, work);
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
          const state = bench.store.getState();
          const { records, viewport } = state;
          if (!records || !viewport) return;
          const box = event.currentTarget.getBoundingClientRect();
          const sight = sightOf(shownCanvas(state, records.picture), { width, height });
          const at = [event.clientX - box.left, event.clientY - box.top] as const;
          const [x, y] = toPicture(sight, { width, height }, at);
          bench.set({ viewport: { ...viewport, x, y } });
        }}
      >
        <canvas ref={canvas} />
        <OnTable width={width} height={height} />
      </Window>
    </Box>
  );
}

/** Frame round the part of the picture that is on the table. */
function OnTable({ width, height }: Size) {
  const { picture, viewport, table } = useBenchState((s) => ({
    picture: s.records && shownCanvas(s, s.records.picture),
    viewport: s.viewport,
    table: s.table,
  }));
  if (!picture || !viewport || !width) return null;
  const size = { width, height };
  const sight = sightOf(picture, size);
  const corners = [
    [0, 0],
    [table.width, 0],
    [table.width, table.height],
    [0, table.height],
  ] as const;
  const points = corners
    .map((corner) => toScreen(sight, size, toPicture(viewport, table, corner)).join(','))
    .join(' ');
  return (
    <svg aria-hidden>
      <polygon points={points} stroke="rgb(255 255 255 / 80%)" strokeWidth={3} />
      <polygon points={points} stroke={look.ink} strokeWidth={1} />
    </svg>
  );
}

/** The whole picture in the window, a little closer than the table fits it. */
function sightOf(picture: Rect, { width, height }: Size): Viewport {
  return fitted(picture, { width: width + 20, height: height + 20 });
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
  svg {
    fill: none;
    pointer-events: none;
  }
  canvas,
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
`;
