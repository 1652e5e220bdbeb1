import type {
  Donor,
  Edit,
  FreshPart,
  PictureEvent,
  PictureRecords,
  Repair,
} from '@tersum/document';
import { shiftDonor } from '@tersum/document';
import { RequestProblem } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { createBench, startOf } from './bench.js';
import { NO_DONOR } from './donors.js';
import { repairEdit } from './repairs.js';
import { idOf, layerOf, recordsOf, repairOf, viewOf } from './test-records.js';

jest.mock('../../api/pictures.js');
const server = jest.mocked(api);

let taken: FreshPart[][];
let hear: (event: PictureEvent) => void;

/** A bench on which version 1 of a picture lies, and what it is told from now on. */
async function opened(repairs: readonly Repair[] = [], layers = [layerOf(900)]): Promise<Bench> {
  const bench = createBench(idOf(1), (fresh) => taken.push([...fresh]));
  server.getRecords.mockResolvedValue(recordsOf(repairs, { layers }));
  server.getView.mockResolvedValue(viewOf(1));
  server.listen.mockImplementation((_, told) => {
    hear = told;
    return () => undefined;
  });
  bench.open();
  for (let k = 0; k < 10; k++) await Promise.resolve();
  return bench;
}

/** The server keeps changes: every one makes a newer version. */
const keeping = (repairs: readonly Repair[] = []): void => {
  server.postChange.mockImplementation((_, version) =>
    Promise.resolve(recordsOf(repairs, { version: version + 1 })),
  );
};
const later = <T>(): { promise: Promise<T>; come: (value: T) => void } => {
  let come: (value: T) => void = () => undefined;
  return { promise: new Promise<T>((resolve) => (come = resolve)), come };
};

beforeEach(() => {
  jest.resetAllMocks();
  taken = [];
});

describe('opening', () => {
  test('a picture lies there with its records, its view and its uppermost layer in hand', async () => {
    const bench = await opened([repairOf(1)], [layerOf(900), layerOf(901), layerOf(902)]);
    const { records, view, tool, computing } = bench.store.getState();
    expect(records!.picture.version).toBe(1);
    expect(view!.version).toBe(1);
    expect(tool.layerId).toBe(idOf(902));
    expect(computing).toBeNull();
  });

  test('a picture that cannot be opened says why; one that lies there already keeps lying', async () => {
    const bench = createBench(idOf(1), () => undefined);
    server.getRecords.mockRejectedValue(new RequestProblem(404, 'There is no such picture.'));
    await bench.refresh();
    expect(bench.store.getState()).toMatchObject({ trouble: 'There is no such picture.' });
    const open = await opened();
    server.getRecords.mockRejectedValue(new RequestProblem(0, 'The server does not answer.'));
    await open.refresh();
    expect(open.store.getState()).toMatchObject({
      trouble: null,
      notice: 'The server does not answer.',
    });
    expect(open.store.getState().records).not.toBeNull();
  });
});

describe('changes', () => {
  test('go out one after the other, each from the version the one before made', async () => {
    const bench = await opened([repairOf(1)]);
    const first = later<PictureRecords>();
    server.postChange.mockReturnValueOnce(first.promise);
    const one = bench.change('One', [repairEdit(repairOf(1, { width: 5 }))]);
    const two = bench.change('Two', [repairEdit(repairOf(1, { width: 6 }))]);
    await Promise.resolve();
    await Promise.resolve();
    expect(server.postChange).toHaveBeenCalledTimes(1);
    expect(bench.store.getState().saving).toBe(2);
    keeping([repairOf(1)]);
    first.come(recordsOf([repairOf(1)], { version: 7 }));
    await Promise.all([one, two]);
    expect(server.postChange.mock.calls.map(([, version, label]) => [version, label])).toEqual([
      [1, 'One'],
      [7, 'Two'],
    ]);
    expect(bench.store.getState().saving).toBe(0);
    expect(bench.store.getState().records!.picture.version).toBe(8);
  });

  test('that change nothing are not sent', async () => {
    const bench = await opened();
    await bench.change('Nothing', []);
    expect(server.postChange).not.toHaveBeenCalled();
  });

  test('refused ones leave the records, say why, and the next one goes out all the same', async () => {
    const bench = await opened([repairOf(1)]);
    server.postChange.mockRejectedValueOnce(new RequestProblem(422, 'Too wide.'));
    await bench.change('Too much', [repairEdit(repairOf(1, { width: 9000 }))]);
    expect(bench.store.getState()).toMatchObject({ notice: 'Too wide.', saving: 0 });
    expect(bench.store.getState().records!.repairs).toEqual([repairOf(1)]);
    keeping([repairOf(1, { width: 8 })]);
    await bench.change('Less', [repairEdit(repairOf(1, { width: 8 }))]);
    expect(bench.store.getState().records!.repairs[0]!.width).toBe(8);
  });

  test('made from an older version bring the newest one', async () => {
    const bench = await opened([repairOf(1)]);
    server.postChange.mockRejectedValueOnce(
      new RequestProblem(409, 'Somebody changed this picture meanwhile.'),
    );
    server.getRecords.mockResolvedValue(recordsOf([repairOf(1), repairOf(2)], { version: 5 }));
    server.getView.mockResolvedValue(viewOf(5));
    await bench.change('Late', [repairEdit(repairOf(1, { width: 5 }))]);
    expect(bench.store.getState().records!.picture.version).toBe(5);
    expect(bench.store.getState().records!.repairs).toHaveLength(2);
    expect(bench.store.getState().notice).toMatch(/meanwhile/);
  });

  test('keep the objects of what did not change', async () => {
    const bench = await opened([repairOf(1), repairOf(2)]);
    const [one, two] = bench.store.getState().records!.repairs;
    keeping([repairOf(1), repairOf(2, { width: 77 })]);
    await bench.change('Wider', [repairEdit(repairOf(2, { width: 77 }))]);
    const now = bench.store.getState().records!.repairs;
    expect(now[0]).toBe(one);
    expect(now[1]).not.toBe(two);
    expect(now[1]!.width).toBe(77);
  });

  test('that take a repair away take it out of the selection', async () => {
    const bench = await opened([repairOf(1), repairOf(2), repairOf(3)]);
    bench.set({ selected: idOf(2), also: [idOf(1), idOf(3)] });
    keeping([repairOf(1)]);
    await bench.change('Remove', [{ entity: 'repair', id: idOf(2), after: null }]);
    expect(bench.store.getState()).toMatchObject({ selected: null, also: [idOf(1)] });
  });

  test('undone and done again ask for the version that lies there', async () => {
    const bench = await opened();
    server.postMove.mockImplementation((_, way, version) =>
      Promise.resolve(recordsOf([], { version: version + (way === 'undo' ? 1 : 2) })),
    );
    await bench.undo();
    await bench.redo();
    expect(server.postMove.mock.calls.map((c) => c.slice(1))).toEqual([
      ['undo', 1],
      ['redo', 2],
    ]);
    expect(bench.store.getState().records!.picture.version).toBe(4);
  });
});

describe('pixels', () => {
  test('of an older version than the one that lies there are not taken', async () => {
    const bench = await opened();
    const parts = [{ place: '0/0/0' }] as FreshPart[];
    hear({ type: 'view', view: viewOf(3), fresh: parts });
    hear({ type: 'view', view: viewOf(2), fresh: parts });
    expect(bench.store.getState().view!.version).toBe(3);
    expect(taken.filter((fresh) => fresh.length)).toHaveLength(1);
  });

  test('of the version that was waited for end what was shown meanwhile', async () => {
    const bench = await opened([repairOf(1)]);
    keeping([repairOf(1)]);
    await bench.change('Change', [repairEdit(repairOf(1, { width: 5 }))]);
    expect(bench.store.getState().computing).toBe(0);
    bench.store.setState({ preview: viewOf(2), sliding: repairOf(1) });
    hear({ type: 'view', view: viewOf(1), fresh: [] });
    expect(bench.store.getState().preview).not.toBeNull();
    hear({ type: 'view', view: viewOf(2), fresh: [] });
    expect(bench.store.getState()).toMatchObject({
      preview: null,
      sliding: null,
      computing: null,
      pending: null,
    });
  });

  test('are on their way as far as the newest version’s progress tells', async () => {
    const bench = await opened();
    hear({ type: 'progress', version: 1, share: 0.4 });
    expect(bench.store.getState().computing).toBe(0.4);
    hear({ type: 'progress', version: 9, share: 0.8 });
    expect(bench.store.getState().computing).toBe(0.4);
  });

  test('that could not be computed: the person is told, and nothing goes on turning', async () => {
    const bench = await opened();
    bench.store.setState({ computing: 0.5 });
    hear({ type: 'trouble', version: 1, message: 'There is nothing to copy.' } as PictureEvent);
    expect(bench.store.getState()).toMatchObject({
      notice: 'There is nothing to copy.',
      computing: null,
    });
  });

  test('tried out are those of the newest wish only', async () => {
    const bench = await opened([repairOf(1)]);
    const [slow, quick] = [later<ReturnType<typeof viewOf>>(), later<ReturnType<typeof viewOf>>()];
    server.postPreview.mockReturnValueOnce(slow.promise).mockReturnValueOnce(quick.promise);
    bench.tryOut([repairEdit(repairOf(1, { width: 5 }))]);
    bench.tryOut([repairEdit(repairOf(1, { width: 6 }))]);
    quick.come(viewOf(60));
    slow.come(viewOf(50));
    for (let k = 0; k < 4; k++) await Promise.resolve();
    expect(bench.store.getState().preview!.version).toBe(60);
  });

  test('are not tried out while a change is on its way', async () => {
    const bench = await opened([repairOf(1)]);
    bench.store.setState({ saving: 1 });
    bench.tryOut([repairEdit(repairOf(1, { width: 5 }))]);
    expect(server.postPreview).not.toHaveBeenCalled();
  });
});

test('what was in hand for one repair is put away when another is taken up', async () => {
  const bench = await opened([repairOf(1), repairOf(2)]);
  const inHand = { repair: idOf(1), list: [], at: 0 };
  bench.set({ selected: idOf(1) });
  bench.store.setState({ variants: inHand, preview: viewOf(4), fillHand: 'guide' });
  bench.set({ notice: 'anything' });
  expect(bench.store.getState().variants).toBe(inHand);
  bench.set({ selected: idOf(2) });
  expect(bench.store.getState()).toMatchObject({ variants: null, preview: null, fillHand: 'pick' });
});

describe('mending', () => {
  const dab = { kind: 'dab', at: [40, 60] } as const;
  const made = (): Repair => {
    const edits: readonly Edit[] = server.postChange.mock.lastCall![3];
    return edits.at(-1)!.after as Repair;
  };
  const taking = (donor: Donor): void => {
    server.findDonors.mockResolvedValue([{ donor, misfit: 1 }]);
  };

  test('a site becomes a repair by the tool in hand, above the others of its layer', async () => {
    const bench = await opened([repairOf(1, { position: 4 })]);
    keeping();
    bench.setTool({ method: 'clone', width: 17, softness: 0.3, strength: 0.8 });
    taking(shiftDonor(30, -4));
    await bench.mend({ ...dab, at: [40, 60] });
    expect(made()).toMatchObject({
      layerId: idOf(900),
      width: 17,
      softness: 0.3,
      strength: 0.8,
      method: { kind: 'clone', donor: { dx: 30, dy: -4 } },
    });
    expect(made().position).toBeGreaterThan(4);
  });

  test('where there is no layer one is made with it', async () => {
    const bench = await opened([], []);
    keeping();
    bench.setTool({ method: 'give back' });
    await bench.mend({ ...dab, at: [40, 60] });
    const edits = server.postChange.mock.lastCall![3];
    expect(edits.map((e) => e.entity)).toEqual(['layer', 'repair']);
    expect(made().layerId).toBe(edits[0]!.id);
  });

  test('without a donor in reach nothing is made, and the person is told', async () => {
    const bench = await opened();
    server.findDonors.mockResolvedValue([]);
    bench.setTool({ method: 'graft' });
    await bench.mend({ ...dab, at: [40, 60] });
    expect(server.postChange).not.toHaveBeenCalled();
    expect(bench.store.getState()).toMatchObject({
      notice: NO_DONOR,
      computing: null,
      pending: null,
    });
  });

  test('strokes that keep step take the shift of the first; afresh each begins at the place', async () => {
    const bench = await opened();
    keeping();
    const place = { kind: 'place', at: [100, 20], laid: shiftDonor(0, 0) } as const;
    bench.setTool({ method: 'clone', donor: { ...place, at: [100, 20] }, keepStep: true });
    await bench.mend({ ...dab, at: [40, 60] });
    await bench.mend({ ...dab, at: [45, 70] });
    expect(made().method).toMatchObject({ donor: { dx: 60, dy: -40 } });
    bench.setTool({ donor: { ...place, at: [100, 20] }, keepStep: false });
    await bench.mend({ ...dab, at: [40, 60] });
    await bench.mend({ ...dab, at: [45, 70] });
    expect(made().method).toMatchObject({ donor: { dx: 55, dy: -50 } });
    expect(server.findDonors).not.toHaveBeenCalled();
  });

  test('a filled area starts out with the guides that are plain to see, a line without', async () => {
    const bench = await opened();
    keeping();
    const guides = [
      {
        points: [
          [0, 0],
          [9, 9],
        ] as [number, number][],
      },
    ];
    server.findGuides.mockResolvedValue(guides);
    await bench.mend({ kind: 'rectangle', x: 10, y: 10, width: 40, height: 30 });
    expect(made().method).toMatchObject({ kind: 'fill', guides });
    await bench.mend({
      kind: 'stroke',
      points: [
        [5, 5],
        [60, 5],
      ],
    });
    expect(made().method).toMatchObject({ kind: 'fill', guides: [] });
    expect(server.findGuides).toHaveBeenCalledTimes(1);
  });

  test('guides that cannot be found are done without', async () => {
    const bench = await opened();
    keeping();
    server.findGuides.mockRejectedValue(new RequestProblem(0, 'The server does not answer.'));
    await bench.mend({ kind: 'rectangle', x: 10, y: 10, width: 40, height: 30 });
    expect(made().method).toMatchObject({ kind: 'fill', guides: [] });
  });

  test('on a hidden layer the person is told why nothing shows', async () => {
    const bench = await opened([], [layerOf(900, { visible: false, name: 'Wires' })]);
    keeping();
    bench.setTool({ method: 'give back' });
    await bench.mend({ ...dab, at: [40, 60] });
    expect(bench.store.getState().notice).toMatch(/“Wires” is hidden/);
  });

  test('a piece is see-through and stays in hand until it lies', async () => {
    const bench = await opened();
    keeping();
    server.postChange.mockImplementation((_, version, __, edits) =>
      Promise.resolve(recordsOf([edits.at(-1)!.after as Repair], { version: version + 1 })),
    );
    bench.setTool({ method: 'piece' });
    await bench.mend({ kind: 'rectangle', x: 10, y: 10, width: 40, height: 30 });
    expect(made().strength).toBe(0.5);
    expect(bench.store.getState().selected).toBe(made().id);
  });
});

test.each([
  [{ kind: 'dab', at: [4, 5] } as const, [4, 5]],
  [
    {
      kind: 'stroke',
      points: [
        [7, 8],
        [9, 9],
      ],
    } as const,
    [7, 8],
  ],
  [{ kind: 'rectangle', x: 10, y: 20, width: 5, height: 9 } as const, [12, 24]],
])('where a %j is begun', (site, start) => {
  expect(startOf(site as never)).toEqual(start);
});
