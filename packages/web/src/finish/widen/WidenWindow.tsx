import type { Sides } from '@tersum/core';
import { canvasOf } from '@tersum/core';
import type { PictureRecords } from '@tersum/document';
import { sidesOf } from '@tersum/document';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import styled from 'styled-components';
import { Caption, MainPush, Push, Toggle, Warning } from '../../look/parts.js';
import { OneOf } from '../../look/OneOf.js';
import { look } from '../../look/theme.js';
import { Actions, Field, Window } from '../../look/Window.js';
import { ReferenceLink } from '../../reference/ReferenceLink.js';
import { useFinish } from '../model/context.js';
import { BackdropLine } from './BackdropLine.js';
import { BothWays } from './BothWays.js';
import type { Stand, Way, Wish } from './plan.js';
import { boxAround, FREE, isNothing, possible, reachedSides, sidesFor, slid } from './plan.js';
import { MUCH, PlanFacts } from './PlanFacts.js';
import { ShapeChoice } from './ShapeChoice.js';
import { SideFields } from './SideFields.js';
import { Sketch } from './Sketch.js';
import { usePlanned } from './usePlanned.js';
import { useStretching } from './useStretching.js';
import { wayOf, wideningEdits, wideningIn } from './widening.js';

const WAYS: Record<Way, string> = {
  fill: 'Fill the sides',
  stretch: 'Stretch the background',
};
const ABOUT: Record<Way, string> = {
  fill: 'New background is made from what stands there; the picture’s own pixels stay as they are.',
  stretch:
    'Strips of background are shown again, or left out where an edge is drawn inwards; the subject keeps its pixels.',
};
const EDGE_NAMES: Record<keyof Sides, string> = {
  left: 'left',
  right: 'right',
  top: 'upper',
  bottom: 'lower',
};
const ACROSS: Record<Stand, string> = {
  first: 'Left third',
  middle: 'Middle',
  last: 'Right third',
};
const DOWN: Record<Stand, string> = { first: 'Upper third', middle: 'Middle', last: 'Lower third' };

interface WidenWindowProps {
  readonly records: PictureRecords;
  onClose(): void;
}

/** Plans another canvas, shows what it costs and what it will look like, and keeps it as a record of the picture. */
export function WidenWindow({ records, onClose }: WidenWindowProps) {
  const { bench } = useFinish();
  const { picture } = records;
  const before = wideningIn(records);
  const { copy, subject, problem, mark } = usePlanned(picture);
  const box = useMemo(() => subject && boxAround(subject), [subject]);
  const [wish, setWish] = useState<Wish>(before ? FREE : { name: '1:1', ratio: 1, mm: null });
  const [stand, setStand] = useState<readonly [Stand, Stand]>(['middle', 'middle']);
  const [way, setWay] = useState<Way>(before ? wayOf(before) : 'fill');
  const [own, setOwn] = useState<Sides | null>(before && sidesOf(before.method));
  const [marking, setMarking] = useState(false);
  const [keeping, setKeeping] = useState(false);
  const planned = useMemo(
    () => own ?? sidesFor(picture, box, wish.ratio ?? picture.width / picture.height, stand),
    [own, picture, box, wish, stand],
  );
  const sides = useMemo(() => possible(planned, picture, way), [planned, picture, way]);
  // Figures follow when the picture on the sketch is drawn.
  const calm = useDeferredValue(sides);
  const stretching = useStretching(copy, subject, way === 'stretch' ? sides : null);
  const canvas = canvasOf(picture.width, picture.height, sides);
  const nothing = isNothing(sides);
  const barred =
    way === 'stretch'
      ? reachedSides(subject ?? [], picture).filter((side) => sides[side] !== 0)
      : [];
  const undoable = barred.length > 0 || stretching?.whole === false;
  const keep = async (): Promise<void> => {
    setKeeping(true);
    await bench.change(
      before ? 'Change the widening' : WAYS[way],
      wideningEdits(records, sides, way, subject ?? []),
    );
    onClose();
  };
  const wants = (next: Wish): void => {
    setWish(next);
    setOwn(next.ratio === null ? sides : null);
  };
  const drawn = useCallback(
    (next: Sides): void => {
      setWish(FREE);
      setOwn(possible(next, picture, way));
    },
    [picture, way],
  );
  const across = sides.left + sides.right !== 0;
  const down = sides.top + sides.bottom !== 0;
  return (
    <Window title="Widen" isOpen width={820} onClose={onClose}>
      <Field as="div">
        <span>
          Wanted shape, width to height{' '}
          <ReferenceLink to="canvas">how it is reckoned</ReferenceLink>
        </span>
        <ShapeChoice wish={wish} onWish={wants} />
      </Field>
      <Plan>
        <div>
          <Sketch
            size={picture}
            sides={sides}
            copy={copy}
            stretching={stretching}
            subject={subject ?? []}
            box={box}
            marking={marking}
            onEdge={(side, by, from) => drawn({ ...from, [side]: from[side] + Math.round(by) })}
            onSlide={(dx, dy, from) => setOwn(slid(from, dx, dy))}
            onMark={(scribble) => {
              setMarking(false);
              void mark(scribble);
            }}
          />
          <Line>
            <Toggle isSelected={marking} onChange={setMarking}>
              Mark the subject
            </Toggle>
            <Push onPress={() => void mark(null)}>Find it again</Push>
            <Caption role="status">
              {marking
                ? 'Scribble over what the picture is of.'
                : subject
                  ? box
                    ? 'The dashed outline is kept.'
                    : 'Nothing stands out as a subject.'
                  : 'Looking for the subject…'}
            </Caption>
          </Line>
          {!before && (
            <Line>
              <BackdropLine records={records} subject={subject ?? []} />
            </Line>
          )}
        </div>
        <div>
          <Field as="div">
            <OneOf label="How" options={WAYS} value={way} onChange={(v) => setWay(v)} />
            <Caption>{ABOUT[way]}</Caption>
          </Field>
          {wish.ratio !== null && (across || down) && (
            <Field as="div">
              <span>Where the {box ? 'subject' : 'picture’s middle'} should stand</span>
              <OneOf
                label="Stand"
                options={across ? ACROSS : DOWN}
                value={stand[across ? 0 : 1]}
                onChange={(v) => {
                  setStand(across ? [v, 'middle'] : ['middle', v]);
                  setOwn(null);
                }}
              />
            </Field>
          )}
          <SideFields sides={calm} least={way === 'fill' ? 0 : -9999} onSides={drawn} />
          <PlanFacts picture={picture} sides={calm} wish={wish} box={box} />
        </div>
      </Plan>
      {barred.length > 0 && (
        <Warning>
          The subject reaches the {barred.map((side) => EDGE_NAMES[side]).join(' and the ')} edge:
          there is nothing to stretch. Fill that side, or mark the subject less widely.
        </Warning>
      )}
      {barred.length === 0 && stretching?.whole === false && (
        <Warning>There is too little background for that: the nearest there is is shown.</Warning>
      )}
      {nothing && <Caption>The picture has this shape already. Drag an edge to change it.</Caption>}
      {canvas.invented > MUCH && (
        <Caption>
          More than a third would be invented: look for repeats at 1:1, or crop a part of the way.
        </Caption>
      )}
      {!nothing && Math.min(...Object.values(sides)) >= 0 && (
        <BothWays
          key={JSON.stringify(calm)}
          pictureId={picture.id}
          sides={calm}
          how={way}
          onChoose={setWay}
        />
      )}
      {problem && <Warning>{problem}</Warning>}
      <Actions>
        <Push onPress={onClose}>Leave it</Push>
        <MainPush
          isDisabled={nothing || !subject || keeping || undoable}
          onPress={() => void keep()}
        >
          {before ? 'Change' : 'Widen'}
        </MainPush>
      </Actions>
    </Window>
  );
}

const Plan = styled.div`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 22px;
  margin-bottom: 12px;
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
  align-items: center;
  color: ${look.inkSoft};
`;
