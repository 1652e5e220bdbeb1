import { randomUUID } from 'node:crypto';
import type { DocketFinding, Records } from '@tersum/document';
import { NO_RECORDS, RepairSchema } from '@tersum/document';
import { sweepOf, takenOut } from './sweeps.js';

const finding = (kind: DocketFinding['kind'], x: number, parts = 1): DocketFinding => ({
  id: randomUUID(),
  kind,
  box: { x, y: 0, width: 4, height: 4 },
  outlines: Array.from({ length: parts }, (_, k): [number, number][] => [
    [x, 9 * k],
    [x + 4, 9 * k],
    [x + 4, 9 * k + 4],
  ]),
  polarity: 1,
  onBoard: false,
  size: 4,
  extent: 6,
  contrast: 30,
  nearEdge: null,
  score: 0.8,
  advice: {
    method: 'graft',
    width: 6,
    softness: 0.2,
    flow: 1,
    portions: 1,
    keepStep: false,
    donor: '',
    reason: 'small and alone',
    order: 70,
    byHand: 6,
    swept: 0.1,
  },
  by: 'survey',
  dismissed: false,
  repairId: null,
});

const empty: Records = NO_RECORDS;

describe('sweeps', () => {
  test('one repair a kind, each on a layer of its own name, all of them sound records', () => {
    const findings = [finding('specks', 0), finding('specks', 10), finding('lines', 30)];
    const { edits, links, label } = sweepOf(empty, findings);
    expect(label).toBe('Mend 3 findings');
    const layers = edits.flatMap((e) => (e.entity === 'layer' && e.after ? [e.after.name] : []));
    expect(layers).toEqual(['Specks', 'Lines']);
    const repairs = edits.flatMap((e) =>
      e.entity === 'repair' && e.after ? [RepairSchema.parse(e.after)] : [],
    );
    expect(repairs.map((r) => r.site.kind === 'parts' && r.site.parts.length)).toEqual([2, 1]);
    expect(links.map((l) => l.ids.length)).toEqual([2, 1]);
  });

  test('a layer of the kind is used again, and the new repair lies on top of it', () => {
    const layer = { id: randomUUID(), name: 'Specks', visible: true, position: 3 };
    const first = sweepOf({ ...NO_RECORDS, layers: [layer] }, [finding('specks', 0)]);
    expect(first.edits).toHaveLength(1);
    const [edit] = first.edits;
    const repair = edit!.entity === 'repair' ? edit!.after! : null;
    expect(repair!.layerId).toBe(layer.id);
    const next = sweepOf({ ...NO_RECORDS, layers: [layer], repairs: [repair!] }, [
      finding('specks', 50),
    ]).edits[0]!;
    expect(next.entity === 'repair' && next.after!.position).toBeGreaterThan(repair!.position);
  });

  test('more parts than a site holds become several repairs', () => {
    const many = Array.from({ length: 3 }, (_, k) => finding('mesh', 10 * k, 900));
    expect(sweepOf(empty, many).links.map((l) => l.ids.length)).toEqual([2, 1]);
  });

  test('nothing open is said', () => {
    expect(() => sweepOf(empty, [])).toThrow('None of these findings is open any more.');
  });

  test('a finding is taken out as its own repair, or left out; what is alone stays', () => {
    const [a, b] = [finding('specks', 0), finding('specks', 10)];
    const edit = sweepOf(empty, [a, b]).edits.find((e) => e.entity === 'repair')!;
    const repair = edit.entity === 'repair' ? edit.after! : null;
    const { edits, own } = takenOut(repair!, a, true);
    expect(own!.site).toMatchObject({
      kind: 'parts',
      parts: [{ shape: { points: a.outlines[0] } }],
    });
    const rest = edits[0]!.entity === 'repair' ? edits[0]!.after! : null;
    expect(rest!.site.kind === 'parts' && rest!.site.parts).toHaveLength(1);
    expect(takenOut(repair!, a, false).own).toBeNull();
    expect(() => takenOut(rest!, b, true)).toThrow('by itself already');
    expect(() => takenOut(rest!, a, true)).toThrow('no longer has this finding');
  });
});
