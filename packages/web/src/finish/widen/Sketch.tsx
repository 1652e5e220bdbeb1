import type { Point, Rect, Sides } from '@tersum/core';
import { canvasRect } from '@tersum/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { look } from '../../look/theme.js';
import type { Stretching } from './stretch-worker.js';
import type { SmallCopy } from './useStretching.js';

interface SketchProps {
  readonly size: { readonly width: number; readonly height: number };
  readonly sides: Sides;
  readonly copy: SmallCopy | null;
  /** The picture as stretched, where it is to be; else new sides are hatched. */
  readonly stretching: Stretching | null;
  readonly subject: readonly (readonly Point[])[];
  readonly box: Rect | null;
  /** Whether dragging marks the subject. */
  readonly marking: boolean;
  /** A side was dragged by so many px of the picture since dragging began. */
  onEdge(side: keyof Sides, by: number, from: Sides): void;
  onSlide(dx: number, dy: number, from: Sides): void;
  onMark(scribble: readonly Point[]): void;
}

/** Room the canvas is drawn in, px, and what is left round it for dragging. */
const ROOM = { width: 372, height: 300 } as const;
const MARGIN = 26;
const EDGES = ['left', 'right', 'top', 'bottom'] as const;
const NAMES = { left: 'Left', right: 'Right', top: 'Upper', bottom: 'Lower' } as const;

interface Drag {
  readonly what: keyof Sides | 'slide' | 'mark';
  readonly at: Point;
  readonly from: Sides;
  /** The scale stays while something is dragged, so that nothing runs away from the pointer. */
  readonly scale: number;
  readonly middle: Point;
}

/** The canvas with the picture in it: edges are dragged, the picture is moved, the subject is marked. */
export function Sketch({
  size,
  sides,
  copy,
  stretching,
  subject,
  box,
  marking,
  onEdge,
  onSlide,
  onMark,
}: SketchProps) {
  const element = useRef<HTMLCanvasElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [scribble, setScribble] = useState<readonly Point[]>([]);
  const canvas = canvasRect(size, sides);
  const scale =
    drag?.scale ??
    Math.min((ROOM.width - 2 * MARGIN) / canvas.width, (ROOM.height - 2 * MARGIN) / canvas.height);
  const middle = drag?.middle ?? [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
  const toScreen = ([x, y]: Point): Point => [
    ROOM.width / 2 + (x - middle[0]) * scale,
    ROOM.height / 2 + (y - middle[1]) * scale,
  ];
  const toPicture = ([x, y]: Point): Point => [
    (x - ROOM.width / 2) / scale + middle[0],
    (y - ROOM.height / 2) / scale + middle[1],
  ];
  const [left, top] = toScreen([canvas.x, canvas.y]);
  const own = toScreen([0, 0]);

  useEffect(() => {
    const ctx = element.current?.getContext('2d');
    if (!ctx || !copy) return;
    const { canvas: target } = ctx;
    const shown = stretching ?? imageOf(copy);
    target.width = shown.width;
    target.height = shown.height;
    ctx.putImageData(new ImageData(shown.rgba, shown.width, shown.height), 0, 0);
  }, [copy, stretching]);

  const pointOf = (event: React.PointerEvent): Point => {
    const frame = event.currentTarget.closest('[data-sketch]')!.getBoundingClientRect();
    return [event.clientX - frame.left, event.clientY - frame.top];
  };
  const begin = (what: Drag['what']) => (event: React.PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = pointOf(event);
    setDrag({ what, at, from: sides, scale, middle });
    if (what === 'mark') setScribble([toPicture(at)]);
  };
  const move = (event: React.PointerEvent): void => {
    if (!drag) return;
    const at = pointOf(event);
    const [dx, dy] = [(at[0] - drag.at[0]) / scale, (at[1] - drag.at[1]) / scale];
    if (drag.what === 'mark') setScribble((s) => [...s, toPicture(at)]);
    else if (drag.what === 'slide') onSlide(dx, dy, drag.from);
    else onEdge(drag.what, byOf(drag.what, dx, dy), drag.from);
  };
  const end = (): void => {
    if (drag?.what === 'mark' && scribble.length) onMark(scribble);
    setDrag(null);
    setScribble([]);
  };
  const key = (side: keyof Sides) => (event: React.KeyboardEvent) => {
    const step = event.shiftKey ? 1 : Math.round(Math.max(size.width, size.height) / 100);
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    onEdge(side, way * step, sides);
  };
  const path = (points: readonly Point[]): string =>
    points
      .map((p) =>
        toScreen(p)
          .map((v) => v.toFixed(1))
          .join(','),
      )
      .join(' ');
  const whole = stretching !== null;
  const factor = (copy?.factor ?? 1) * scale;
  return (
    <Frame data-sketch role="group" aria-label="The picture in its new canvas" style={ROOM}>
      <Canvas
        style={{ left, top, width: canvas.width * scale, height: canvas.height * scale }}
        data-hatched={!whole}
      />
      <Shown
        ref={element}
        data-testid="sketch-picture"
        data-marking={marking}
        data-stretched={whole}
        style={
          whole
            ? {
                left,
                top,
                ...shownSize(stretching, stretching.whole ? canvas : null, scale, factor),
              }
            : { left: own[0], top: own[1], width: size.width * scale, height: size.height * scale }
        }
        onPointerDown={begin(marking ? 'mark' : 'slide')}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={end}
      />
      <svg aria-hidden>
        {subject.map((points, k) => (
          <g key={k}>
            <polygon data-under points={path(points)} />
            <polygon points={path(points)} />
          </g>
        ))}
        {box && <Rooms canvas={canvas} box={box} toScreen={toScreen} />}
        {scribble.length > 1 && <polyline data-scribble points={path(scribble)} />}
      </svg>
      {EDGES.map((side) => (
        <Edge
          key={side}
          type="button"
          role="slider"
          aria-label={`${NAMES[side]} edge`}
          aria-valuenow={sides[side]}
          aria-valuetext={`${sides[side]} px`}
          data-side={side}
          style={placeOf(side, left, top, canvas.width * scale, canvas.height * scale)}
          onPointerDown={begin(side)}
          onPointerMove={move}
          onPointerUp={end}
          onPointerCancel={end}
          onKeyDown={key(side)}
        />
      ))}
    </Frame>
  );
}

/** Headroom and looking room: thin lines from the subject's box to the canvas. */
function Rooms({
  canvas,
  box,
  toScreen,
}: {
  readonly canvas: Rect;
  readonly box: Rect;
  toScreen(at: Point): Point;
}) {
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const lines: readonly (readonly [Point, Point])[] = [
    [
      [cx, canvas.y],
      [cx, box.y],
    ],
    [
      [canvas.x, cy],
      [box.x, cy],
    ],
    [
      [box.x + box.width, cy],
      [canvas.x + canvas.width, cy],
    ],
  ];
  return (
    <>
      {lines.map(([a, b], k) => {
        const [[x1, y1], [x2, y2]] = [toScreen(a), toScreen(b)];
        return <line key={k} x1={x1} y1={y1} x2={x2} y2={y2} />;
      })}
    </>
  );
}

function byOf(side: keyof Sides, dx: number, dy: number): number {
  return { left: -dx, right: dx, top: -dy, bottom: dy }[side];
}

/** Screen px a stretched copy takes: those of the canvas, or its own where it did not get so far. */
function shownSize(copy: Stretching, canvas: Rect | null, scale: number, factor: number) {
  return canvas
    ? { width: canvas.width * scale, height: canvas.height * scale }
    : { width: copy.width * factor, height: copy.height * factor };
}

const HANDLE = { long: 44, thick: 12 } as const;

function placeOf(side: keyof Sides, left: number, top: number, width: number, height: number) {
  const upright = side === 'left' || side === 'right';
  const [w, h] = upright ? [HANDLE.thick, HANDLE.long] : [HANDLE.long, HANDLE.thick];
  const x = side === 'left' ? left : side === 'right' ? left + width : left + width / 2;
  const y = side === 'top' ? top : side === 'bottom' ? top + height : top + height / 2;
  return { left: x - w / 2, top: y - h / 2, width: w, height: h };
}

const images = new WeakMap<SmallCopy, Stretching>();

/** The copy as it is drawn. */
function imageOf(copy: SmallCopy): Stretching {
  const known = images.get(copy);
  if (known) return known;
  const { width, height, channels, data } = copy.picture;
  const shift = data instanceof Uint16Array ? 8 : 0;
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let p = 0; p < width * height; p++) {
    for (let c = 0; c < 3; c++)
      rgba[4 * p + c] = data[p * channels + (channels >= 3 ? c : 0)]! >> shift;
    rgba[4 * p + 3] = 255;
  }
  const image = { width, height, rgba, whole: true };
  images.set(copy, image);
  return image;
}

const Frame = styled.div`
  position: relative;
  overflow: hidden;
  background: ${look.paperDeep};
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  touch-action: none;
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
    fill: none;
    stroke: #fff;
    stroke-width: 1.2;
    stroke-dasharray: 3 3;
  }
  [data-under] {
    stroke: rgb(0 0 0 / 45%);
    stroke-width: 2.4;
    stroke-dasharray: none;
  }
  line {
    stroke-dasharray: none;
    stroke-width: 1;
  }
  [data-scribble] {
    stroke-dasharray: none;
    stroke-width: 4;
    stroke-linecap: round;
  }
`;

const Canvas = styled.div`
  position: absolute;
  background: ${look.paperHigh};
  outline: 1px solid ${look.inkSoft};
  &[data-hatched='true'] {
    background: repeating-linear-gradient(45deg, ${look.hairline} 0 1px, ${look.paperHigh} 1px 7px);
  }
`;

const Shown = styled.canvas`
  position: absolute;
  cursor: grab;
  &[data-marking='true'] {
    cursor: crosshair;
  }
`;

const Edge = styled.button`
  position: absolute;
  border: 1px solid ${look.ink};
  border-radius: 3px;
  background: ${look.paperHigh};
  padding: 0;
  &[data-side='left'],
  &[data-side='right'] {
    cursor: ew-resize;
  }
  &[data-side='top'],
  &[data-side='bottom'] {
    cursor: ns-resize;
  }
  &:focus-visible {
    outline: 2px solid ${look.done};
  }
`;
