import { canvasFor, cropFor, printSize, SHAPES } from '@tersum/core';
import type { Making, Picture } from '@tersum/document';
import { useState } from 'react';
import styled from 'styled-components';
import { BothWays } from './BothWays.js';
import { MakingFoot } from '../../jobs/making/MakingFoot.js';
import { useMaking } from '../../jobs/making/useMaking.js';
import { Caption } from '../../look/parts.js';
import { OneOf } from '../../look/OneOf.js';
import { look } from '../../look/theme.js';
import { Field, Window } from '../../look/Window.js';
import { useSurvey } from '../../api/survey.js';
import { ReferenceLink } from '../../reference/ReferenceLink.js';

const STANDS = { left: 'Left third', middle: 'Middle', right: 'Right third' } as const;
type Stand = keyof typeof STANDS;
const PLACES: Record<Stand, number> = { left: 1 / 3, middle: 1 / 2, right: 2 / 3 };
const HOW = { fill: 'Fill the sides', stretch: 'Stretch the background' } as const;
const ABOUT = {
  fill: 'New background is made from what stands there; the picture’s own pixels stay as they are.',
  stretch:
    'Strips of background are shown again; the subject, found or marked on the bench, keeps its pixels.',
} as const;
/** Share of invented canvas from which on it becomes hard to believe; common practice. */
const MUCH = 0.35;

/** Middle of the marked subject, shares of the picture's sides; the picture's own where none is marked. */
function middleOf(
  subject: readonly (readonly [number, number])[] | null,
  { width, height }: Picture,
): [number, number] {
  if (!subject) return [0.5, 0.5];
  const middle = (values: number[]): number => (Math.min(...values) + Math.max(...values)) / 2;
  return [middle(subject.map(([x]) => x)) / width, middle(subject.map(([, y]) => y)) / height];
}

/** Plans a bigger canvas of a wanted shape, says what it costs, and makes it as a new picture of the job. */
export function WidenWindow({ picture, onClose }: { picture: Picture; onClose(): void }) {
  const [shape, setShape] = useState('1:1');
  const [stand, setStand] = useState<Stand>('middle');
  const [how, setHow] = useState<keyof typeof HOW>('fill');
  const making = useMaking(picture.jobId);
  const { width, height, ppi } = picture;
  const { ratio } = SHAPES.find((s) => s.name === shape)!;
  const at = PLACES[stand];
  const subject = useSurvey(picture.id).data?.settings.subject ?? null;
  const canvas = canvasFor(width, height, ratio, middleOf(subject, picture), [at, 0.5]);
  const crop = cropFor(width, height, ratio);
  const { left, right, top, bottom } = canvas.sides;
  const nothing = left + right + top + bottom === 0;
  const print = ppi ? printSize(canvas.width, canvas.height, ppi) : null;
  const order: Making | null = nothing
    ? null
    : { kind: 'widen', picture: picture.id, how, sides: canvas.sides };
  return (
    <Window title="Widen" isOpen width={560} onClose={onClose}>
      <Field as="div">
        <span>
          Wanted shape, width to height{' '}
          <ReferenceLink to="canvas">how it is reckoned</ReferenceLink>
        </span>
        <OneOf
          label="Wanted shape"
          options={Object.fromEntries(SHAPES.map((s) => [s.name, s.name]))}
          value={shape}
          onChange={setShape}
        />
      </Field>
      <Field as="div">
        <span>Where the {subject ? 'subject' : 'picture’s middle'} should stand</span>
        <OneOf label="Stand" options={STANDS} value={stand} onChange={(v) => setStand(v)} />
      </Field>
      <Plan>
        <Sketch
          style={{ aspectRatio: `${canvas.width} / ${canvas.height}` }}
          role="img"
          aria-label="The picture in its new canvas"
        >
          <img
            src={`/api/pictures/${picture.id}/thumb?state=repaired&v=widen`}
            alt=""
            style={{
              left: `${(100 * left) / canvas.width}%`,
              top: `${(100 * top) / canvas.height}%`,
              width: `${(100 * width) / canvas.width}%`,
              height: `${(100 * height) / canvas.height}%`,
            }}
          />
        </Sketch>
        <dl>
          <dt>New canvas</dt>
          <dd>
            {canvas.width} × {canvas.height} px
          </dd>
          <dt>Added left, right</dt>
          <dd>
            {left}, {right} px
          </dd>
          <dt>Added top, bottom</dt>
          <dd>
            {top}, {bottom} px
          </dd>
          <dt>Invented</dt>
          <dd data-much={canvas.invented > MUCH}>{(100 * canvas.invented).toFixed(0)} %</dd>
          {print && (
            <>
              <dt>Prints at</dt>
              <dd>
                {print.mm[0].toFixed(0)} × {print.mm[1].toFixed(0)} mm
              </dd>
            </>
          )}
          <dt>Cropped instead</dt>
          <dd>
            {crop.width} × {crop.height} px
          </dd>
          <dt>Lost by cropping</dt>
          <dd>{(100 * crop.lost).toFixed(0)} %</dd>
        </dl>
      </Plan>
      {nothing && <Caption>The picture has this shape already.</Caption>}
      {canvas.invented > MUCH && (
        <Caption>
          More than a third would be invented: look for repeats at 1:1, or crop a part of the way.
        </Caption>
      )}
      {!nothing && (
        <BothWays
          key={JSON.stringify(canvas.sides)}
          pictureId={picture.id}
          sides={canvas.sides}
          how={how}
          onChoose={setHow}
        />
      )}
      <Field as="div">
        <OneOf label="How" options={HOW} value={how} onChange={(v) => setHow(v)} />
        <Caption>{ABOUT[how]}</Caption>
      </Field>
      <MakingFoot making={making} order={order} verb="Widen" onClose={onClose} />
    </Window>
  );
}

const Plan = styled.div`
  display: grid;
  grid-template-columns: 210px 1fr;
  gap: 20px;
  margin-bottom: 14px;
  align-items: center;
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 3px 14px;
  }
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

/** New sides are hatched, so that they are told from the picture without colour. */
const Sketch = styled.div`
  position: relative;
  max-height: 210px;
  max-width: 210px;
  justify-self: center;
  width: 100%;
  border: 1px solid ${look.inkSoft};
  background: repeating-linear-gradient(45deg, ${look.hairline} 0 1px, transparent 1px 7px);
  img {
    position: absolute;
    object-fit: fill;
  }
`;
