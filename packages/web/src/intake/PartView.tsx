import type { Raster, Rect } from '@tersum/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { getPart } from '../api/finish.js';
import { Caption } from '../look/parts.js';

interface PartProps {
  readonly title: string;
  /** The picture, and what of it is shown at 1:1. */
  readonly id: string;
  readonly rect: Rect;
  readonly state: 'received' | 'mended';
  /** Another one asks again. */
  readonly version: number;
}

const WORDS = { waits: 'Computing …', failed: 'It could not be shown; reload the page.' } as const;

/** A part of a picture at 1:1. */
export function PartView({ title, id, rect, state, version }: PartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [stage, setStage] = useState<'waits' | 'shown' | 'failed'>('waits');
  const { x, y, width, height } = rect;
  useEffect(() => {
    const gone = new AbortController();
    setStage('waits');
    getPart(id, { x, y, width, height }, 1, gone.signal, state).then(
      (part) => {
        paint(canvas.current, part);
        setStage('shown');
      },
      () => {
        if (!gone.signal.aborted) setStage('failed');
      },
    );
    return () => gone.abort();
  }, [id, x, y, width, height, state, version]);
  return (
    <Figure>
      <canvas ref={canvas} width={width} height={height} aria-busy={stage === 'waits'} />
      <Caption role="status">{stage === 'shown' ? title : WORDS[stage]}</Caption>
    </Figure>
  );
}

function paint(canvas: HTMLCanvasElement | null, part: Raster): void {
  const context = canvas?.getContext('2d');
  if (!context) return;
  const { width, height, channels, data } = part;
  const image = context.createImageData(width, height);
  for (let p = 0; p < width * height; p++) {
    for (let c = 0; c < 3; c++)
      image.data[4 * p + c] = data[p * channels + (channels === 3 ? c : 0)]! / 257;
    image.data[4 * p + 3] = 255;
  }
  context.putImageData(image, 0, 0);
}

const Figure = styled.figure`
  display: grid;
  gap: 4px;
  margin: 0;
  justify-items: start;
`;
