import type { Point } from '@tersum/core';
import type { ReactNode } from 'react';
import { useEffect, useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { Push } from '../look/parts.js';
import { look } from '../look/theme.js';
import type { WorkRoom } from '../work/clock.js';
import { RestReminder } from '../work/RestReminder.js';
import { BenchHeader } from './BenchHeader.js';
import { createBench } from './model/bench.js';
import { BenchContext, useBenchState } from './model/context.js';
import { TileStore } from './table/tile-store.js';

interface RoomProps {
  /** What working time in it counts as. */
  readonly kind: WorkRoom;
  /** Widths of the columns at both sides, px, and on narrow screens. */
  readonly sides: readonly [left: number, right: number];
  readonly narrow: readonly [left: number, right: number];
  readonly children: ReactNode;
}

/** A room in which one picture is worked on: its records and tiles, the head over it, and a word when it cannot be opened. */
export function Room(props: RoomProps) {
  const { pictureId = '' } = useParams();
  return <RoomOf key={pictureId} pictureId={pictureId} {...props} />;
}

function RoomOf({ pictureId, ...props }: RoomProps & { readonly pictureId: string }) {
  const [search] = useSearchParams();
  const at = search.get('at');
  const tools = useMemo(() => {
    const tiles = new TileStore(pictureId);
    const bench = createBench(pictureId, (fresh) => tiles.freshen(fresh));
    bench.set({ openAt: placeOf(at) });
    return { bench, tiles };
  }, [pictureId, at]);
  useEffect(() => tools.bench.open(), [tools]);
  return (
    <BenchContext value={tools}>
      <Inside {...props} />
      <RestReminder pictureId={pictureId} room={props.kind} />
    </BenchContext>
  );
}

function Inside({ sides, narrow, children }: RoomProps) {
  const trouble = useBenchState((s) => s.trouble);
  return (
    <Page $sides={sides} $narrow={narrow}>
      <BenchHeader />
      {trouble ? (
        <Trouble role="alert">
          <h2>The picture cannot be opened</h2>
          <p>{trouble}</p>
          <Push onPress={() => window.location.reload()}>Try again</Push>
        </Trouble>
      ) : (
        children
      )}
    </Page>
  );
}

/** A place written as "x,y". */
function placeOf(text: string | null): Point | null {
  const [x, y] = (text ?? '').split(',').map(Number);
  return x !== undefined && y !== undefined && Number.isFinite(x) && Number.isFinite(y)
    ? [x, y]
    : null;
}

const Page = styled.div<{
  $sides: readonly [number, number];
  $narrow: readonly [number, number];
}>`
  height: 100vh;
  min-width: 1000px;
  display: grid;
  grid-template: 48px minmax(0, 1fr) / ${(p) => p.$sides[0]}px minmax(0, 1fr) ${(p) =>
      p.$sides[1]}px;
  > header {
    grid-column: 1 / -1;
  }
  @media (max-width: 1150px) {
    grid-template-columns: ${(p) => p.$narrow[0]}px minmax(0, 1fr) ${(p) => p.$narrow[1]}px;
  }
`;

/** The middle of a room: the picture over a strip or two. */
export const Middle = styled.main`
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
