import { useState } from 'react';
import styled from 'styled-components';
import { Choice, Choices, Figure } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBenchState } from '../model/context.js';
import { FarView } from './FarView.js';
import { Loupe } from './Loupe.js';

const ZOOMS = [1, 2, 4] as const;

/** Twin loupes, locked on the point under the pointer, over the far view. */
export function Sight() {
  const [zoom, setZoom] = useState<number>(2);
  return (
    <Column aria-label="Loupes and far view">
      <Head>
        <Choices
          aria-label="Loupe zoom"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[zoom]}
          onSelectionChange={(keys) => setZoom(Number([...keys][0]))}
        >
          {ZOOMS.map((z) => (
            <Choice key={z} id={z}>
              {z}:1
            </Choice>
          ))}
        </Choices>
        <Place />
      </Head>
      <Loupe title="As received" zoom={zoom} repaired={false} />
      <Loupe title="As repaired" zoom={zoom} repaired />
      <FarView />
    </Column>
  );
}

/** The picture point under the pointer. */
function Place() {
  const place = useBenchState(({ pointer }) => pointer?.map(Math.round).join(', ') ?? '');
  return <Figure>{place}</Figure>;
}

const Column = styled.aside`
  border-left: 1px solid ${look.hairline};
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) minmax(0, 1fr) auto;
  min-height: 0;
`;

const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 8px 10px;
  ${Figure} {
    color: ${look.inkSoft};
    font-size: 11px;
  }
  ${Choice} {
    min-height: 24px;
    padding: 0 9px;
  }
`;
