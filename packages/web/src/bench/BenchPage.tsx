import { useEffect, useMemo } from 'react';
import { useParams } from 'react-router';
import styled from 'styled-components';
import { Push } from '../look/parts.js';
import { look } from '../look/theme.js';
import { BenchHeader } from './BenchHeader.js';
import { MethodCard } from './card/MethodCard.js';
import { Docket } from './docket/Docket.js';
import { createBench } from './model/bench.js';
import { BenchContext, useBenchState } from './model/context.js';
import { NoticeLine } from './NoticeLine.js';
import { Sight } from './sight/Sight.js';
import { SightStrip } from './sight/SightStrip.js';
import { Table } from './table/Table.js';
import { TileStore } from './table/tile-store.js';
import { useKeys } from './useKeys.js';

/** The bench: docket, table, method card, loupes and far view of one picture. */
export function BenchPage() {
  const { pictureId = '' } = useParams();
  return <BenchOf key={pictureId} pictureId={pictureId} />;
}

function BenchOf({ pictureId }: { readonly pictureId: string }) {
  const tools = useMemo(() => {
    const tiles = new TileStore(pictureId);
    return { bench: createBench(pictureId, (fresh) => tiles.freshen(fresh)), tiles };
  }, [pictureId]);
  useEffect(() => tools.bench.open(), [tools]);
  return (
    <BenchContext value={tools}>
      <Inside />
    </BenchContext>
  );
}

function Inside() {
  useKeys();
  const trouble = useBenchState((s) => s.trouble);
  return (
    <Page>
      <BenchHeader />
      {trouble ? (
        <Trouble role="alert">
          <h2>The picture cannot be opened</h2>
          <p>{trouble}</p>
          <Push onPress={() => window.location.reload()}>Try again</Push>
        </Trouble>
      ) : (
        <>
          <Docket />
          <Middle>
            <Table />
            <SightStrip />
            <MethodCard />
            <NoticeLine />
          </Middle>
          <Sight />
        </>
      )}
    </Page>
  );
}

const Page = styled.div`
  height: 100vh;
  min-width: 1000px;
  display: grid;
  grid-template: 48px minmax(0, 1fr) / 280px minmax(0, 1fr) 232px;
  > header {
    grid-column: 1 / -1;
  }
  @media (max-width: 1150px) {
    grid-template-columns: 232px minmax(0, 1fr) 184px;
  }
`;

const Middle = styled.main`
  position: relative;
  min-width: 0;
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto;
`;

const Trouble = styled.div`
  grid-column: 1 / -1;
  place-self: center;
  max-width: 52ch;
  display: grid;
  gap: 12px;
  justify-items: start;
  h2 {
    font-size: 20px;
    font-weight: 600;
  }
  p {
    color: ${look.inkSoft};
  }
`;
