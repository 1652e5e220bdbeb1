import { MethodCard } from './card/MethodCard.js';
import { Docket } from './docket/Docket.js';
import { NoticeLine } from './NoticeLine.js';
import { Middle, Room } from './Room.js';
import { Sight } from './sight/Sight.js';
import { SightStrip } from './sight/SightStrip.js';
import { Table } from './table/Table.js';
import { useKeys } from './useKeys.js';

/** The bench: docket, table, method card, loupes and far view of one picture. */
export function BenchPage() {
  return (
    <Room kind="bench" sides={[280, 232]} narrow={[256, 172]}>
      <Inside />
    </Room>
  );
}

function Inside() {
  useKeys();
  return (
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
  );
}
