import type { Sides } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Caption, Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { siteName } from '../model/repairs.js';
import { FillTools } from './FillTools.js';
import { Card, Gap, Line, Title } from './lines.js';
import { VariantsStrip } from './VariantsStrip.js';

interface WideningCardProps {
  readonly repair: Repair;
  readonly sides: Sides;
  readonly letter: string;
}

/** The card of the record that made the canvas another: its sides, and of filled ones what a fill can be asked. */
export function WideningCard({ repair, sides, letter }: WideningCardProps) {
  const { bench } = useBench();
  const { varied, pictureId, failed } = useBenchState((s) => ({
    varied: s.variants?.repair === repair.id,
    pictureId: s.pictureId,
    failed: s.view?.failed[repair.id],
  }));
  const { method } = repair;
  const { left, right, top, bottom } = sides;
  return (
    <Card aria-label="Method card">
      <Line>
        <Title>
          {method.kind === 'fill' ? 'Fill' : 'Stretch'} {letter}
        </Title>
        <Caption>
          {siteName(repair)}: <Figure>{left}</Figure> left, <Figure>{right}</Figure> right,{' '}
          <Figure>{top}</Figure> above, <Figure>{bottom}</Figure> below
        </Caption>
        <Gap />
        <Change to={`/finish/${pictureId}?part=frame&widen=open`}>Change the canvas…</Change>
        <Push onPress={() => bench.set({ selected: null })}>Done</Push>
      </Line>
      {method.kind === 'fill' ? (
        varied ? (
          <VariantsStrip repair={repair} />
        ) : (
          <FillTools repair={repair} fill={method} />
        )
      ) : (
        <Caption role="status">
          {failed ??
            'What is outlined keeps its pixels; repairs on layers above lie on the stretched picture.'}
        </Caption>
      )}
    </Card>
  );
}

const Change = styled(Link)`
  color: ${look.done};
`;
