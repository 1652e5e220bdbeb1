import type { Site } from '@tersum/document';
import { RequestProblem } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { createBench } from './bench.js';
import {
  addToChain,
  continueChain,
  finishDraft,
  outlineDrawnThing,
  widthForLine,
} from './drafting.js';
import { idOf, recordsOf } from './test-records.js';

jest.mock('../../api/pictures.js');
const server = jest.mocked(api);

/** A bench that notes what it is asked to mend. */
function drafting(): { bench: Bench; mended: { site: Site; width: number | undefined }[] } {
  const bench = createBench(idOf(1), () => undefined);
  bench.store.setState({ records: recordsOf([]) });
  const mended: { site: Site; width: number | undefined }[] = [];
  return {
    bench: {
      ...bench,
      mend: (site, width) => {
        mended.push({ site, width });
        return Promise.resolve();
      },
    },
    mended,
  };
}

type Run = Awaited<ReturnType<typeof api.measureLine>>;
const run = (points: [number, number][], widths: number[], bends?: number[]): Run =>
  ({
    points,
    bends: bends ?? points.slice(1).map(() => 0),
    width: Math.max(...widths),
    widths,
  }) as Run;

/** Lets everything that was promised come. */
const settle = async (): Promise<void> => {
  for (let k = 0; k < 8; k++) await Promise.resolve();
};
const chain = (bench: Bench): Extract<Site, { kind: 'chain' }> => {
  const { draft } = bench.store.getState();
  if (draft?.site.kind !== 'chain') throw new Error('a chain is being drawn');
  return draft.site;
};

beforeEach(() => jest.resetAllMocks());

describe('width of stroke for a line (common practice: 1.1-1.3 times as wide)', () => {
  test.each([
    [2, 5],
    [4, 7],
    [10, 13],
    [20, 26],
  ])('a line of %s px gets %s px', (line, width) => expect(widthForLine(line)).toBe(width));

  test('a soft border is made up for, so that the line does not shine through', () => {
    expect(widthForLine(10, 0.2)).toBe(Math.round(13 / 0.88));
    expect(widthForLine(10, 0.2)).toBeGreaterThan(widthForLine(10));
  });
});

describe('a chain', () => {
  test('one click is no line yet; the second one is measured from there', async () => {
    const { bench } = drafting();
    addToChain(bench, [10, 10]);
    expect(server.measureLine).not.toHaveBeenCalled();
    server.measureLine.mockResolvedValueOnce(
      run(
        [
          [10, 10],
          [30, 14],
          [50, 10],
        ],
        [3, 4, 5],
      ),
    );
    addToChain(bench, [50, 10]);
    expect(bench.store.getState().draft!.measuring).toBe(1);
    expect(server.measureLine).toHaveBeenCalledWith(idOf(1), [10, 10], [50, 10]);
    await settle();
    expect(chain(bench).points).toEqual([
      [10, 10],
      [30, 14],
      [50, 10],
    ]);
    expect(bench.store.getState().draft).toMatchObject({
      measured: [5],
      widths: [3, 4, 5],
      measuring: 0,
    });
  });

  test('where two runs meet the wider measure counts, and corners drawn meanwhile stay', async () => {
    const { bench } = drafting();
    addToChain(bench, [0, 0]);
    let come: (line: Run) => void = () => undefined;
    server.measureLine.mockReturnValueOnce(new Promise((resolve) => (come = resolve)));
    addToChain(bench, [20, 0]);
    server.measureLine.mockResolvedValueOnce(
      run(
        [
          [20, 0],
          [40, 0],
        ],
        [9, 2],
      ),
    );
    addToChain(bench, [40, 0]);
    await settle();
    come(
      run(
        [
          [0, 0],
          [10, 3],
          [20, 0],
        ],
        [4, 4, 4],
        [1, 2],
      ),
    );
    await settle();
    expect(chain(bench)).toMatchObject({
      points: [
        [0, 0],
        [10, 3],
        [20, 0],
        [40, 0],
      ],
      bends: [1, 2, 0],
    });
    expect(bench.store.getState().draft!.widths).toEqual([4, 4, 9, 2]);
  });

  test('a run that no line is found on stays as it was clicked', async () => {
    const { bench } = drafting();
    addToChain(bench, [0, 0]);
    server.measureLine.mockRejectedValueOnce(new RequestProblem(0, 'away'));
    addToChain(bench, [20, 5]);
    await settle();
    expect(chain(bench)).toMatchObject({
      points: [
        [0, 0],
        [20, 5],
      ],
      bends: [0],
    });
    expect(bench.store.getState().draft).toMatchObject({ measured: [], measuring: 0 });
  });

  test('given up while it is measured, it does not come back', async () => {
    const { bench } = drafting();
    addToChain(bench, [0, 0]);
    server.measureLine.mockResolvedValueOnce(
      run(
        [
          [0, 0],
          [20, 5],
        ],
        [3, 3],
      ),
    );
    addToChain(bench, [20, 5]);
    bench.set({ draft: null });
    await settle();
    expect(bench.store.getState().draft).toBeNull();
  });

  test('is mended as wide as its line asks for, narrower where the line is', async () => {
    const { bench, mended } = drafting();
    addToChain(bench, [0, 0]);
    server.measureLine.mockResolvedValueOnce(
      run(
        [
          [0, 0],
          [20, 0],
          [40, 0],
        ],
        [10, 5, 2],
      ),
    );
    addToChain(bench, [40, 0]);
    await finishDraft(bench);
    const [{ site, width }] = mended as [(typeof mended)[0]];
    expect(width).toBe(13);
    expect(bench.store.getState().tool.width).toBe(13);
    expect(site.kind === 'chain' && site.shares).toEqual([1, 8 / 13, 5 / 13]);
    expect(bench.store.getState().draft).toBeNull();
  });

  test('waits for what is still being measured before it is mended', async () => {
    const { bench, mended } = drafting();
    addToChain(bench, [0, 0]);
    let come: (line: Run) => void = () => undefined;
    server.measureLine.mockReturnValueOnce(new Promise((resolve) => (come = resolve)));
    addToChain(bench, [40, 0]);
    const done = finishDraft(bench);
    await settle();
    expect(mended).toHaveLength(0);
    come(
      run(
        [
          [0, 0],
          [40, 0],
        ],
        [4, 4],
      ),
    );
    await done;
    expect(mended).toHaveLength(1);
    expect(mended[0]!.width).toBe(7);
  });

  test('of a very soft brush is drawn less soft', async () => {
    const { bench } = drafting();
    bench.setTool({ softness: 0.9 });
    addToChain(bench, [0, 0]);
    server.measureLine.mockResolvedValueOnce(
      run(
        [
          [0, 0],
          [40, 0],
        ],
        [4, 4],
      ),
    );
    addToChain(bench, [40, 0]);
    await finishDraft(bench);
    expect(bench.store.getState().tool.softness).toBe(0.2);
  });

  test('without a line under it is mended with the brush in hand', async () => {
    const { bench, mended } = drafting();
    addToChain(bench, [0, 0]);
    server.measureLine.mockResolvedValueOnce(null as never);
    addToChain(bench, [40, 0]);
    await finishDraft(bench);
    expect(mended).toHaveLength(1);
    expect(mended[0]!.width).toBeUndefined();
  });

  test('of one corner, and an outline of two, are nothing to mend', async () => {
    const { bench, mended } = drafting();
    addToChain(bench, [0, 0]);
    await finishDraft(bench);
    bench.set({
      draft: {
        site: {
          kind: 'outline',
          points: [
            [0, 0],
            [5, 5],
          ],
        },
        measured: [],
        widths: [],
        measuring: 0,
      },
    });
    await finishDraft(bench);
    expect(mended).toEqual([]);
    expect(bench.store.getState().draft).toBeNull();
  });
});

describe('continued to its ends', () => {
  const drawn = async (): Promise<ReturnType<typeof drafting>> => {
    const at = drafting();
    addToChain(at.bench, [10, 0]);
    server.measureLine.mockResolvedValueOnce(
      run(
        [
          [10, 0],
          [30, 0],
        ],
        [3, 5],
      ),
    );
    addToChain(at.bench, [30, 0]);
    await settle();
    return at;
  };

  test('a line is followed from what is known of it', async () => {
    const { bench } = await drawn();
    server.lineToItsEnds.mockResolvedValueOnce({
      points: [
        [0, 0],
        [10, 0],
        [30, 0],
        [90, 4],
      ],
      bends: [0, 0, 2],
      widths: [2, 3, 5, 6],
    });
    await continueChain(bench);
    expect(server.lineToItsEnds.mock.lastCall![1]).toMatchObject({ widths: [3, 5] });
    expect(chain(bench).points).toHaveLength(4);
    expect(bench.store.getState().draft).toMatchObject({ measured: [5, 6], measuring: 0 });
    expect(bench.store.getState().notice).toBeNull();
  });

  test('one that goes no further is told so', async () => {
    const { bench } = await drawn();
    const { points, bends } = chain(bench);
    server.lineToItsEnds.mockResolvedValueOnce({ points, bends, widths: [3, 5] });
    await continueChain(bench);
    expect(bench.store.getState().notice).toMatch(/no further/);
  });

  test('when the server does not answer the chain stays', async () => {
    const { bench } = await drawn();
    server.lineToItsEnds.mockRejectedValueOnce(new RequestProblem(0, 'away'));
    await continueChain(bench);
    expect(chain(bench).points).toHaveLength(2);
    expect(bench.store.getState()).toMatchObject({ notice: 'away', draft: { measuring: 0 } });
  });
});

describe('a scribble over a thing', () => {
  test('mends what lies in its outline', async () => {
    const { bench, mended } = drafting();
    const outline: [number, number][] = [
      [0, 0],
      [9, 0],
      [9, 9],
    ];
    server.outlineThing.mockResolvedValueOnce(outline);
    await outlineDrawnThing(bench, [
      [4, 4],
      [5, 5],
    ]);
    expect(mended).toEqual([{ site: { kind: 'outline', points: outline }, width: undefined }]);
  });

  test('without an outline tells what to do instead', async () => {
    const { bench, mended } = drafting();
    server.outlineThing.mockResolvedValueOnce(null as never);
    await outlineDrawnThing(bench, [[4, 4]]);
    expect(mended).toEqual([]);
    expect(bench.store.getState().notice).toMatch(/Scribble over more/);
  });
});
