import { printSize } from '@tersum/core';
import type { Picture } from '@tersum/document';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { measureTilt } from '../../api/finish.js';
import { useBench, useBenchState } from '../../bench/model/context.js';
import { Dial } from '../../look/Dial.js';
import { Caption, Figure, MainPush, Noted, Push, Toggle } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { shownCanvas } from '../../bench/model/state.js';
import { useFinish, useFinishState } from '../model/context.js';
import { WidenedLine } from '../widen/WidenedLine.js';
import {
  angleOf,
  bordered,
  framing,
  shaped,
  SHAPES,
  squared,
  turnedFrame,
  wholeFrame,
} from '../model/framing.js';

/** Hardly level or plumb below this; see the measure's own words. */
const CLEAR = 2;

/** Straightening, perspective and cropping of the picture; repairs stay where they are. */
export function FramePanel() {
  const finish = useFinish();
  const { bench } = useBench();
  const { picture, canvas } = useBenchState((s) => ({
    picture: s.records?.picture,
    canvas: s.records && shownCanvas(s, s.records.picture),
  }));
  useBenchState((s) => s.records?.frames);
  const { busy, hand, freeCorners, prints } = useFinishState((s) => s);
  const [made, setMade] = useState<readonly Picture[]>([]);
  useFinishState((s) => s.frameDraft);
  if (!picture || !canvas) return null;
  const frame = finish.frame();
  const now = frame ?? wholeFrame(canvas);
  const keep = (next: ReturnType<typeof wholeFrame> | null, label: string): void =>
    void finish.keepFrame(next, label);
  const byLines = (): void =>
    void finish.wait('Measuring the lines', async () => {
      const { angle, clearness } = await measureTilt(picture.id);
      if (clearness < CLEAR)
        bench.set({
          notice:
            'Hardly anything in this picture is level or plumb. Look at the result, or draw a line.',
        });
      await finish.keepFrame(turnedFrame(canvas, angle), 'Straighten by level lines');
    });
  const byEdge = (): void =>
    void finish.wait('Looking for the paper’s edge', async () => {
      const found = await finish.findPrints();
      const [print] = found;
      if (!print)
        return bench.set({
          notice: 'No paper’s edge stands out here. Drag the corners to it by hand.',
        });
      if (found.length === 1)
        await finish.keepFrame(framing(print), 'Straighten by the print’s edge');
    });
  const split = (): void =>
    void finish.wait('Cutting the prints apart', async () => {
      const pictures = await finish.splitPrints();
      finish.set({ prints: [] });
      setMade(pictures);
    });
  const size = picture.ppi ? printSize(now.width, now.height, picture.ppi) : null;
  return (
    <Panel aria-label="Frame">
      <h2>Straighten</h2>
      <Line>
        <Push isDisabled={busy !== null} onPress={byLines}>
          By level lines
        </Push>
        <Push isDisabled={busy !== null} onPress={byEdge}>
          By the print’s edge
        </Push>
        <Toggle
          isSelected={hand === 'level'}
          onChange={(on) => finish.set({ hand: on ? 'level' : 'pan' })}
        >
          Draw a line
        </Toggle>
      </Line>
      {busy && <Caption role="status">{busy}…</Caption>}
      {hand === 'level' && <Caption>Drag along something that should be level or plumb.</Caption>}
      {prints.length > 1 && (
        <Noted>
          <span>
            <Figure>{prints.length}</Figure> prints lie here. Each becomes a picture of this job,
            straightened.
          </span>
          <MainPush isDisabled={busy !== null} onPress={split}>
            Split into {prints.length} pictures
          </MainPush>
        </Noted>
      )}
      {made.length > 0 && (
        <Noted role="status">
          <span>Made:</span>
          {made.map(({ id, name }) => (
            <Link key={id} to={`/bench/${id}`}>
              {name}
            </Link>
          ))}
        </Noted>
      )}
      <Dial
        label="Turn"
        least={-15}
        most={15}
        step={0.05}
        unit="°"
        value={Math.round(angleOf(frame) * 20) / 20}
        onChange={(v) => finish.set({ frameDraft: { ...turnedFrame(canvas, v), id: 'draft' } })}
        onDone={(v) => keep(turnedFrame(canvas, v), 'Straighten')}
      />
      <h2>Crop</h2>
      <Line>
        {SHAPES.filter((s) => s.ratio !== null).map(({ name, ratio }) => (
          <Push key={name} onPress={() => keep(shaped(now, ratio!), `Crop to ${name}`)}>
            {name}
          </Push>
        ))}
      </Line>
      <Line>
        <Push onPress={() => keep(bordered(now, -0.02), 'Crop the border')}>2 % less border</Push>
        <Push onPress={() => keep(bordered(now, 0.02), 'Leave more border')}>2 % more</Push>
      </Line>
      <Line>
        <Toggle isSelected={freeCorners} onChange={(on) => finish.set({ freeCorners: on })}>
          Move corners one by one
        </Toggle>
        <Push onPress={() => keep(squared(now), 'Make the frame square')}>Square</Push>
      </Line>
      <Facts>
        <Figure>
          {now.width} × {now.height} px
        </Figure>
        {size && (
          <Figure>
            {size.mm[0].toFixed(1)} × {size.mm[1].toFixed(1)} mm at {Math.round(picture.ppi!)} ppi
          </Figure>
        )}
      </Facts>
      <WidenedLine />
      <Push isDisabled={!frame} onPress={() => keep(null, 'Take the frame away')}>
        Whole picture
      </Push>
      <Caption>Repairs keep their places: the frame is put in when files are made.</Caption>
    </Panel>
  );
}

const Panel = styled.section`
  display: grid;
  gap: 10px;
  padding: 12px 14px 20px;
  justify-items: start;
  > div {
    justify-self: stretch;
  }
  h2 {
    font-size: 15px;
    font-weight: 600;
  }
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;

const Facts = styled.div`
  display: grid;
  gap: 2px;
  padding: 8px 10px;
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
`;
