import type { Rect, Sides } from '@tersum/core';
import { canvasOf, cropFor, densityFor, printSize, roomAround } from '@tersum/core';
import type { Picture } from '@tersum/document';
import { memo } from 'react';
import styled from 'styled-components';
import { look } from '../../look/theme.js';
import type { Wish } from './plan.js';

/** Share of invented canvas from which on it becomes hard to believe; common practice. */
export const MUCH = 0.35;

interface PlanFactsProps {
  readonly picture: Picture;
  readonly sides: Sides;
  readonly wish: Wish;
  /** The subject's box. */
  readonly box: Rect | null;
}

/** What a canvas comes to: its size, what is invented, the print, the room round the subject, and a crop instead. */
export const PlanFacts = memo(function PlanFacts({ picture, sides, wish, box }: PlanFactsProps) {
  const { width, height, ppi } = picture;
  const canvas = canvasOf(width, height, sides);
  const crop = cropFor(width, height, wish.ratio ?? canvas.width / canvas.height);
  const room = box && roomAround(picture, sides, box);
  const print = ppi && !wish.mm ? printSize(canvas.width, canvas.height, ppi) : null;
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  return (
    <Facts>
      <dt>New canvas</dt>
      <dd>
        {canvas.width} × {canvas.height} px
      </dd>
      <dt>Invented</dt>
      <dd data-much={canvas.invented > MUCH}>{percent(Math.max(0, canvas.invented))}</dd>
      {wish.mm && (
        <>
          <dt>Print at</dt>
          <dd>{Math.round(densityFor(canvas.width, wish.mm[0] / 25.4))} ppi</dd>
        </>
      )}
      {print && (
        <>
          <dt>Prints at</dt>
          <dd>
            {print.mm[0].toFixed(0)} × {print.mm[1].toFixed(0)} mm
          </dd>
        </>
      )}
      {room && (
        <>
          <dt>Headroom</dt>
          <dd>{percent(room.above)}</dd>
          <dt>Looking room</dt>
          <dd>
            {percent(room.left)} left, {percent(room.right)} right
          </dd>
        </>
      )}
      <dt>Cropped instead</dt>
      <dd>
        {crop.width} × {crop.height} px
      </dd>
      <dt>Lost by cropping</dt>
      <dd>{percent(crop.lost)}</dd>
    </Facts>
  );
});

const Facts = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 14px;
  margin: 0;
  align-content: start;
  dt {
    color: ${look.inkSoft};
  }
  dd {
    margin: 0;
    font-family: ${look.figures};
    text-align: right;
    &[data-much='true'] {
      color: ${look.todo};
      font-weight: 600;
    }
  }
`;
