import type { Point } from '@tersum/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { shownCanvas } from '../../bench/model/state.js';
import { SURROUNDS } from '../../look/theme.js';
import { useElementSize } from '../../look/useElementSize.js';
import { FrameOverlay } from '../frame/FrameOverlay.js';
import { useFinish, useFinishState } from '../model/context.js';
import { isPicking } from '../model/finish.js';
import { DrawnOverlay } from './DrawnOverlay.js';
import { placeOf } from './place.js';
import type { Painted, Tones } from './tone-worker.js';
import type { Shown } from './useTonedPicture.js';
import { useTonedPicture } from './useTonedPicture.js';

interface ToneViewProps {
  onTones(tones: Tones): void;
  /** A line was drawn along what should be level or plumb. */
  onLevel(from: Point, to: Point): void;
}

const MARGIN = 24;

/** The picture as it will be delivered, and the pointer's work on it. */
export function ToneView({ onTones, onLevel }: ToneViewProps) {
  const finish = useFinish();
  const frameRef = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const room = useElementSize(frameRef);
  const picture = useBenchState((s) => s.records && shownCanvas(s, s.records.picture));
  const computing = useBenchState((s) => s.computing);
  const frames = useBenchState((s) => s.records?.frames);
  const { zoom, part, hand, frameDraft } = useFinishState((s) => s);
  const [corner, setCorner] = useState<Point>([0, 0]);
  const [path, setPath] = useState<Point[]>([]);

  const shown = useMemo((): Shown | null => {
    if (!picture || room.width < 40) return null;
    if (zoom === 'fit') {
      const ratio = Math.max(
        picture.width / (room.width - 2 * MARGIN),
        picture.height / (room.height - 2 * MARGIN),
      );
      const factor = Math.max(1, Math.round(ratio));
      return { ...picture, factor };
    }
    const width = Math.min(picture.width, Math.round(room.width));
    const height = Math.min(picture.height, Math.round(room.height));
    const within = (v: number, room: number): number => Math.round(Math.min(room, Math.max(0, v)));
    const x = picture.x + within(corner[0] - picture.x, picture.width - width);
    const y = picture.y + within(corner[1] - picture.y, picture.height - height);
    return { x, y, width, height, factor: 1 };
  }, [picture, room.width, room.height, zoom, corner]);
  const draw = useCallback(({ width, height, rgba }: Painted) => {
    const element = canvas.current;
    if (!element) return;
    if (element.width !== width) element.width = width;
    if (element.height !== height) element.height = height;
    element.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, []);
  const { size: painted, tones, place } = useTonedPicture(shown, draw);

  useEffect(() => {
    if (tones) onTones(tones);
  }, [tones, onTones]);

  const [frame = null] = frames ?? [];
  const framed = part === 'frame' || zoom === 'whole' ? null : (frameDraft ?? frame);
  const at =
    painted && place ? placeOf(room, painted, place, framed, zoom === 'whole' ? 0 : MARGIN) : null;

  const pointOf = useCallback(
    (event: { clientX: number; clientY: number }): Point => {
      const box = frameRef.current!.getBoundingClientRect();
      return at!.toPicture([event.clientX - box.left, event.clientY - box.top]);
    },
    [at],
  );
  const down = (event: React.PointerEvent): void => {
    if (!at || event.button !== 0 || part === 'frame') return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setPath([pointOf(event)]);
  };
  const move = (event: React.PointerEvent): void => {
    if (!at || !path.length) return;
    if (hand === 'pan') {
      if (zoom === 'whole') setCorner((c) => [c[0] - event.movementX, c[1] - event.movementY]);
      return;
    }
    const point = pointOf(event);
    const straight =
      hand === 'level' || (hand === 'mask' && finish.selected()?.mask?.kind === 'gradient');
    setPath((p) => (straight ? [p[0]!, point] : [...p, point]));
  };
  const up = (): void => {
    const drawn = path;
    setPath([]);
    if (!drawn.length || !place) return;
    if (isPicking(hand)) {
      const [x, y] = drawn.at(-1)!;
      void finish.pick((x - place.x) / place.scale, (y - place.y) / place.scale);
    } else if (hand === 'level') {
      if (drawn.length > 1) onLevel(drawn[0]!, drawn.at(-1)!);
    } else if (hand !== 'pan') void finish.drawn(drawn);
  };
  return (
    <Surround
      ref={frameRef}
      role="application"
      aria-label="The picture as it will be delivered"
      data-hand={zoom === 'whole' && hand === 'pan' ? 'drag' : hand}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setPath([])}
    >
      <canvas
        ref={canvas}
        data-testid="finish-picture"
        style={
          at ? { left: at.left, top: at.top, width: at.width, height: at.height } : { opacity: 0 }
        }
      />
      {at && part === 'tone' && <DrawnOverlay path={path} at={at} />}
      {at && part === 'frame' && <FrameOverlay at={at} room={room} />}
      {at && hand === 'level' && part === 'frame' && (
        <LevelPad
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            setPath([pointOf(event)]);
          }}
          onPointerMove={move}
          onPointerUp={up}
        >
          <DrawnOverlay path={path} at={at} />
        </LevelPad>
      )}
      {(!painted || computing !== null) && (
        <Wait role="status">
          {painted ? 'Computing the repairs…' : 'Getting the picture ready…'}
        </Wait>
      )}
    </Surround>
  );
}

const Surround = styled.div`
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  background: ${SURROUNDS.light};
  touch-action: none;
  cursor: default;
  &[data-hand='drag'] {
    cursor: grab;
  }
  &[data-hand='stroke'],
  &[data-hand='mask'],
  &[data-hand='level'],
  &[data-hand='tint'],
  &[data-hand='place'] {
    cursor: crosshair;
  }
  canvas {
    position: absolute;
  }
`;

const LevelPad = styled.div`
  position: absolute;
  inset: 0;
  cursor: crosshair;
`;

const Wait = styled.div`
  position: absolute;
  left: 50%;
  bottom: 16px;
  transform: translateX(-50%);
  background: rgb(246 243 236 / 92%);
  padding: 4px 12px;
  border-radius: 3px;
`;
