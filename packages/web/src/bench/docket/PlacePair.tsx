import { frameOf } from '@tersum/core';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { useBench } from '../model/context.js';
import { sightOf } from '../model/place.js';
import type { BenchState } from '../model/state.js';
import { paintPicture } from '../table/paint.js';
import { useCanvas } from '../table/useCanvas.js';

const SIZE = { width: 76, height: 36 };
const HALF = { width: 37, height: 36 };

interface PlacePairProps {
  /** Middle of the place, px of the original. */
  readonly x: number;
  readonly y: number;
  /** How much of the picture is seen from top to bottom, px. */
  readonly side: number;
  /** Left out, the place is shown as received alone, wider. */
  readonly repaired?: boolean;
}

/** A place of the picture, tiny: as received on the left, as repaired on the right. */
export function PlacePair({ x, y, side, repaired = false }: PlacePairProps) {
  const { bench, tiles } = useBench();
  const canvas = useRef<HTMLCanvasElement>(null);
  const work = useMemo(
    () => ({
      watch: (s: BenchState) =>
        repaired ? [s.view, s.preview, s.records === null] : [s.records === null],
      patience: 120,
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const { records, view, preview } = bench.store.getState();
        ctx.fillStyle = '#fff';
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        if (!records || ctx.canvas.checkVisibility?.({ contentVisibilityAuto: true }) === false)
          return false;
        const size = repaired ? HALF : SIZE;
        const frame = view?.canvas ?? frameOf(records.picture);
        const sight = sightOf({ x, y, side }, size, frame);
        let complete = true;
        for (const k of repaired ? [0, 1] : [0]) {
          ctx.save();
          ctx.translate(k * (HALF.width + 2) * ratio, 0);
          ctx.beginPath();
          ctx.rect(0, 0, size.width * ratio, size.height * ratio);
          ctx.clip();
          const state = k
            ? ({ kind: 'repaired', view: preview ?? view } as const)
            : ({ kind: 'original' } as const);
          complete =
            paintPicture(ctx, tiles, records.picture, state, sight, size, ratio) && complete;
          ctx.restore();
        }
        return complete;
      },
    }),
    [bench, tiles, x, y, side, repaired],
  );
  useCanvas(canvas, SIZE, work);
  return <Small ref={canvas} style={SIZE} aria-hidden />;
}

const Small = styled.canvas`
  flex-shrink: 0;
  border-radius: 2px;
  /* Where the docket is narrow, words need the room. */
  @media (max-width: 1150px) {
    max-width: 55px;
    max-height: 26px;
  }
`;
