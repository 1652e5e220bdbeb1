import type { Records } from '@tersum/document';
import { layersInOrder } from '@tersum/document';
import { Plus } from 'lucide-react';
import { useDeferredValue } from 'react';
import styled from 'styled-components';
import { Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { layerEdit, positionAfter } from '../model/repairs.js';
import { Findings } from './Findings.js';
import { LayerGroup } from './LayerGroup.js';
import { Proof } from './Proof.js';
import { TouchUps } from './TouchUps.js';

/** The docket: the picture's repairs by repair layer, top layer first. */
export function Docket() {
  const { bench } = useBench();
  // Pixels are waited for, the list is not: it is drawn in the pauses.
  const records = useDeferredValue(useBenchState((s) => s.records));
  const addLayer = (): void => {
    if (!records) return;
    const layer = {
      id: crypto.randomUUID(),
      name: freshName(records),
      visible: true,
      position: positionAfter(records.layers),
    };
    void bench
      .change('Add layer', [layerEdit(layer)])
      .then(() => bench.setTool({ layerId: layer.id }));
  };
  return (
    <Column aria-label="Docket">
      <Head>
        <h2>Docket</h2>
        {records && (
          <span>
            <Figure>{records.repairs.length}</Figure>{' '}
            {records.repairs.length === 1 ? 'repair' : 'repairs'}
          </span>
        )}
        <Push onPress={addLayer} isDisabled={!records}>
          <Plus size={14} aria-hidden /> Layer
        </Push>
      </Head>
      <Scroll>
        {!records && <Loading aria-busy="true" aria-label="Loading the docket" />}
        <Findings />
        <TouchUps />
        <Proof />
        {records &&
          layersInOrder(records)
            .reverse()
            .map((layer) => <LayerGroup key={layer.id} layer={layer} records={records} />)}
        {records?.repairs.length === 0 && (
          <Nothing>
            Nothing is mended yet. Choose a method on the card below the table and draw over what
            should go: a wire, a scratch, a spot. Every repair lands here and stays open.
          </Nothing>
        )}
      </Scroll>
    </Column>
  );
}

function freshName(records: Records): string {
  const taken = new Set(records.layers.map((l) => l.name));
  for (let k = records.layers.length + 1; ; k++) if (!taken.has(`Layer ${k}`)) return `Layer ${k}`;
}

const Column = styled.aside`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  border-right: 1px solid ${look.hairline};
  min-height: 0;
`;

const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: 10px;
  padding: 10px 12px 8px 20px;
  border-bottom: 1px solid ${look.hairline};
  h2 {
    font-size: 14px;
    font-weight: 600;
  }
  span {
    flex: 1;
    color: ${look.inkSoft};
  }
`;

const Scroll = styled.div`
  overflow: auto;
  padding-bottom: 24px;
`;

const Loading = styled.div`
  height: 220px;
  margin: 12px 20px;
  background: repeating-linear-gradient(${look.paperDeep} 0 36px, transparent 36px 44px);
`;

const Nothing = styled.p`
  margin: 16px 20px;
  color: ${look.inkSoft};
`;
