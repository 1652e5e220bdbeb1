import { useMemo } from 'react';
import styled from 'styled-components';
import { Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { placeAt } from '../model/place.js';
import { docketOrder, letterOf } from '../model/repairs.js';
import type { TouchUp } from '../model/touch-ups.js';
import { goTo, touchUp, touchUpsOf } from '../model/touch-ups.js';
import { PlacePair } from './PlacePair.js';
import { Words } from './row-parts.js';

/** What is left to do: places where fills are unsure of themselves. */
export function TouchUps() {
  const { bench } = useBench();
  const { records, view } = useBenchState((s) => ({ records: s.records, view: s.view }));
  const list = useMemo(() => (records ? touchUpsOf(records, view) : []), [records, view]);
  if (!records || !list.length) return null;
  const order = docketOrder(records);
  const letter = ({ repair }: TouchUp): string =>
    letterOf(order.findIndex((r) => r.id === repair.id));
  return (
    <Group aria-label="To do" open={list.length <= 3}>
      <Head>
        To do <Figure>{list.length}</Figure>
      </Head>
      {list.map((item, i) => (
        <Row key={i}>
          <Go type="button" onClick={() => goTo(bench, item)}>
            <PlacePair {...placeAt(item.place.x, item.place.y, item.place.width)} repaired />
            <Words>
              <span>
                Touch up <b>{letter(item)}</b>
              </span>
              <small>
                <Figure>{item.place.width} px</Figure>, sure{' '}
                <Figure>{Math.round(100 * item.place.confidence)} %</Figure>
              </small>
            </Words>
          </Go>
          <Push
            aria-label={`Touch up place ${i + 1} of fill ${letter(item)}`}
            onPress={() => void touchUp(bench, item)}
          >
            Mend
          </Push>
        </Row>
      ))}
    </Group>
  );
}

const Group = styled.details`
  border-bottom: 1px solid ${look.hairline};
`;

const Head = styled.summary`
  padding: 7px 46px 7px 16px;
  cursor: default;
  border-left: 3px solid ${look.todo};
  background: ${look.paperDeep};
  font-size: 13px;
  font-weight: 600;
`;

const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 12px 2px 0;
  &:hover {
    background: ${look.paperHigh};
  }
`;

const Go = styled.button`
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 0 4px 15px;
  border: 0;
  background: none;
  text-align: left;
`;
