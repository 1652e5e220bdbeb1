import type { Repair } from '@tersum/document';
import { siteBox } from '@tersum/document';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { useBench } from '../model/context.js';
import type { BenchState } from '../model/state.js';
import { paintPicture } from '../table/paint.js';
import { useCanvas } from '../table/useCanvas.js';

const SIZE = { width: 76, height: 36 };
const HALF = { width: 37, height: 36 };

/** The place of a repair, tiny: as received on the left, as repaired on the right. */
export function SitePair({ repair }: { readonly repair: Repair }) {
  const { bench, tiles } = useBench();
  const canvas = useRef<HTMLCanvasElement>(null);
  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [s.view, s.preview, s.records === null],
      patience: 120,
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const { records, view, preview } = bench.store.getState();
        ctx.fillStyle = '#fff';
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        if (!records || ctx.canvas.checkVisibility?.({ contentVisibilityAuto: true }) === false)
          return false;
        const box = siteBox(repair);
        const side = Math.max(box.width, box.height, 24) * 1.3;
        const sight = {
          x: box.x + box.width / 2,
          y: box.y + box.height / 2,
          zoom: HALF.height / side,
          turn: 0,
        };
        let complete = true;
        for (const k of [0, 1]) {
          ctx.save();
          ctx.translate(k * (HALF.width + 2) * ratio, 0);
          ctx.beginPath();
          ctx.rect(0, 0, HALF.width * ratio, HALF.height * ratio);
          ctx.clip();
          const state = k
            ? ({ kind: 'repaired', view: preview ?? view } as const)
            : ({ kind: 'original' } as const);
          complete =
            paintPicture(ctx, tiles, records.picture, state, sight, HALF, ratio) && complete;
          ctx.restore();
        }
        return complete;
      },
    }),
    [bench, tiles, repair],
  );
  useCanvas(canvas, SIZE, work);
  return <Small ref={canvas} style={SIZE} aria-hidden />;
}

const Small = styled.canvas`
  flex-shrink: 0;
  border-radius: 2px;
`;
