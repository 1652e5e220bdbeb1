import { useEffect, useMemo, useRef } from 'react';
import { FlipHorizontal2 } from 'lucide-react';
import styled, { css } from 'styled-components';
import { useBench, useBenchState } from '../../bench/model/context.js';
import type { BenchState } from '../../bench/model/state.js';
import { SplitBar } from '../../bench/table/SplitBar.js';
import { TellMarks } from '../../bench/table/TellMarks.js';
import { useCanvas } from '../../bench/table/useCanvas.js';
import { useLaidOut } from '../../bench/table/useLaidOut.js';
import { useWheelZoom } from '../../bench/table/useWheelZoom.js';
import { panned, toPicture } from '../../bench/table/viewport.js';
import { SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { FrameMark } from '../sweep/FrameMark.js';
import { useProofState, useProofStore } from '../model.js';
import { HeatMarks } from './HeatMarks.js';
import { paintCompared } from './paint-compared.js';
import { SeenFilter, useSeenBlur } from './SeenFilter.js';

/** ms a state stays while both are blinked. */
const BLINK = 700;
/** Id of the filter that shows what eyes see at the use. */
const SEEN = 'seen-at-use';

/** The picture as received and as repaired, laid beside each other in one of several ways. */
export function CompareView() {
  const { bench, tiles } = useBench();
  const proof = useProofStore();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(frame);
  const surround = useBenchState((s) => s.surround);
  const state = useProofState((s) => s);
  const { way, received, onion, doublings } = state;
  const blur = useSeenBlur();
  useLaidOut(size);
  useWheelZoom(frame);

  useEffect(() => {
    bench.set({ split: way === 'split' ? (bench.store.getState().split ?? 0.5) : null });
    if (way !== 'blink') return;
    const beat = setInterval(() => proof.setState((s) => ({ received: !s.received })), BLINK);
    return () => {
      clearInterval(beat);
      proof.setState({ received: false });
    };
  }, [bench, proof, way]);

  const work = useMemo(
    () => ({
      watch: (s: BenchState) => [s.viewport, s.view, s.split, s.surround, s.records === null],
      paint(ctx: CanvasRenderingContext2D, ratio: number) {
        const { records, viewport, view, table, split, surround } = bench.store.getState();
        ctx.fillStyle = SURROUNDS[surround];
        ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
        if (!records || !viewport) return false;
        const sight = { tiles, picture: records.picture, view, viewport, table };
        const how = { ...proof.getState(), way, received, onion, doublings };
        const drawn = paintCompared(ctx, { ...sight, split: split ?? 0.5 }, how, ratio);
        const complete = drawn && view?.version === records.picture.version;
        if (proof.getState().complete !== complete) proof.setState({ complete });
        return drawn;
      },
    }),
    [bench, tiles, proof, way, received, onion, doublings],
  );
  useCanvas(canvas, size, work);

  const drag = useRef<readonly [number, number] | null>(null);
  return (
    <Frame
      ref={frame}
      role="application"
      aria-label="The picture, compared"
      data-view="compared"
      tabIndex={0}
      style={{ background: SURROUNDS[surround] }}
      onPointerDown={(event) => {
        drag.current = [event.clientX, event.clientY];
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const { viewport, table } = bench.store.getState();
        if (!viewport) return;
        const box = event.currentTarget.getBoundingClientRect();
        if (drag.current) {
          const by = [event.clientX - drag.current[0], event.clientY - drag.current[1]] as const;
          drag.current = [event.clientX, event.clientY];
          bench.set({ viewport: panned(viewport, ...by) });
        } else
          bench.set({
            pointer: toPicture(viewport, table, [
              event.clientX - box.left,
              event.clientY - box.top,
            ]),
          });
      }}
      onPointerUp={() => (drag.current = null)}
      onPointerLeave={() => bench.set({ pointer: null })}
      data-complete={state.complete}
    >
      <SeenFilter id={SEEN} blur={blur} />
      <canvas ref={canvas} style={blur ? { filter: `url(#${SEEN})` } : undefined} />
      <HeatMarks />
      <TellMarks />
      <FrameMark />
      {way === 'split' && <SplitBar />}
      {way === 'blink' && <Name>{received ? 'As received' : 'As repaired'}</Name>}
      {way === 'flip' && (
        <Flip
          aria-pressed={received}
          title="Key: hold V"
          onClick={() => proof.setState({ received: !received })}
          onPointerDown={(event) => event.stopPropagation()}
        >
          <FlipHorizontal2 size={13} aria-hidden /> {received ? 'As received' : 'As repaired'}
        </Flip>
      )}
      {way === 'beside' && (
        <>
          <Name>As received</Name>
          <Name data-right>As repaired</Name>
        </>
      )}
    </Frame>
  );
}

const Frame = styled.div`
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  touch-action: none;
  user-select: none;
  cursor: grab;
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

const label = css`
  position: absolute;
  top: 10px;
  left: 10px;
  padding: 2px 8px;
  font-size: 12px;
  background: rgb(246 243 236 / 88%);
  border: 0;
  border-radius: 3px;
`;

const Flip = styled.button.attrs({ type: 'button' })`
  ${label}
  display: inline-flex;
  align-items: center;
  gap: 6px;
  &[aria-pressed='true'] {
    background: #1f2326;
    color: #f6f3ec;
  }
`;

const Name = styled.span`
  ${label}
  pointer-events: none;
  &[data-right] {
    left: auto;
    right: 10px;
  }
`;
