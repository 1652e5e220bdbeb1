import type { Repair } from '@tersum/document';
import type * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { createBench } from './bench.js';
import { idOf, recordsOf } from './test-records.js';

/** A bench with repairs on it, the first one selected; a mocked server keeps every change and never ends a trial. */
export function benchOver(
  server: jest.MockedObject<typeof api>,
  repairs: readonly Repair[],
): Bench {
  const bench = createBench(idOf(1), () => undefined);
  bench.store.setState({ records: recordsOf(repairs), selected: repairs[0]!.id });
  server.postChange.mockImplementation((_, version) =>
    Promise.resolve(recordsOf(repairs, { version: version + 1 })),
  );
  server.postPreview.mockReturnValue(new Promise(() => undefined));
  return bench;
}
