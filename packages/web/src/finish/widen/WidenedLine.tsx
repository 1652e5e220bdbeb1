import { sidesOf } from '@tersum/document';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { Caption, Figure, Noted, Push, Warning } from '../../look/parts.js';
import { useFinish } from '../model/context.js';
import { WidenWindow } from './WidenWindow.js';
import { wayOf, wideningIn, withoutEdits } from './widening.js';

/** The widening of the picture: opened to plan one, or to change the one there is. */
export function WidenedLine() {
  const { bench } = useFinish();
  const records = useBenchState((s) => s.records);
  const failed = useBenchState((s) => s.view?.failed);
  const [search] = useSearchParams();
  const [open, setOpen] = useState(search.get('widen') === 'open');
  if (!records) return null;
  const widening = wideningIn(records);
  const sides = widening && sidesOf(widening.method);
  const window = open && <WidenWindow records={records} onClose={() => setOpen(false)} />;
  if (!widening || !sides)
    return (
      <>
        <Push onPress={() => setOpen(true)}>Widen…</Push>
        {window}
      </>
    );
  const { left, right, top, bottom } = sides;
  return (
    <Noted aria-label="Widening">
      <span>
        {wayOf(widening) === 'fill' ? 'Sides filled' : 'Background stretched'}:{' '}
        <Figure>
          {left}, {right}
        </Figure>{' '}
        px left and right,{' '}
        <Figure>
          {top}, {bottom}
        </Figure>{' '}
        above and below
      </span>
      {failed?.[widening.id] && <Warning>{failed[widening.id]}</Warning>}
      <Line>
        <Push onPress={() => setOpen(true)}>Change the canvas…</Push>
        <Push onPress={() => void bench.change('Take the widening away', withoutEdits(records))}>
          Take away
        </Push>
      </Line>
      <Caption>
        It is a record of its own layer:{' '}
        <Link to={`/bench/${records.picture.id}`}>on the bench</Link> it has variants, guides and
        touch-ups.
      </Caption>
      {window}
    </Noted>
  );
}

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;
