import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { look, SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { useBench } from '../model/context.js';
import { siteBox } from '@tersum/document';
import type { BenchState } from '../model/state.js';
import { paintPicture } from '../table/paint.js';
import { useCanvas } from '../table/useCanvas.js';
import { SightName } from './SightName.js';

interface LoupeProps {
  readonly title: string;
  readonly zoom: number;
  readonly repaired: boolean;
}

/** A close look at the point under the pointer; without a pointer, at the selected repair or the table's middle. */
export function Loupe({ title, zoom, repaired }: LoupeProps) {
  const { bench, tiles } = useBench();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(frame);
  const { width, height } = size;
  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [
        lookedAt(s)?.join(),
        s.viewport?.turn,
        s.view,
        s.preview,
        s.surround,
      ],
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const s = bench.store.getState();
        ctx.fillStyle = SURROUNDS[s.surround];
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        const at = lookedAt(s);
        if (!s.records || !at) return false;
        const sight = { x: at[0], y: at[1], zoom, turn: s.viewport?.turn ?? 0 };
        const state = repaired
          ? ({ kind: 'repaired', view: s.preview ?? s.view } as const)
          : ({ kind: 'original' } as const);
        const { picture } = s.records;
        const complete = paintPicture(ctx, tiles, picture, state, sight, { width, height }, ratio);
        ctx.fillStyle = '#fff';
        const x = (width / 2) * ratio;
        const y = (height / 2) * ratio;
        ctx.globalCompositeOperation = 'difference';
        ctx.fillRect(x - 6 * ratio, y, 4 * ratio, 1);
        ctx.fillRect(x + 2 * ratio, y, 4 * ratio, 1);
        ctx.fillRect(x, y - 6 * ratio, 1, 4 * ratio);
        ctx.fillRect(x, y + 2 * ratio, 1, 4 * ratio);
        ctx.globalCompositeOperation = 'source-over';
        return complete;
      },
    }),
    [bench, tiles, zoom, repaired, width, height],
  );
  useCanvas(canvas, size, work);
  return (
    <Box aria-label={`${title}, close`}>
      <SightName>{title}</SightName>
      <Glass ref={frame}>
        <canvas ref={canvas} />
      </Glass>
    </Box>
  );
}

function lookedAt(s: BenchState): readonly [number, number] | null {
  if (s.pointer) return s.pointer;
  const repair = s.records?.repairs.find((r) => r.id === s.selected);
  if (repair) {
    const box = siteBox(repair);
    return [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2];
  }
  return s.viewport ? [s.viewport.x, s.viewport.y] : null;
}

const Box = styled.figure`
  margin: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  border-top: 1px solid ${look.hairline};
`;

const Glass = styled.div`
  position: relative;
  min-height: 0;
  overflow: hidden;
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
`;
