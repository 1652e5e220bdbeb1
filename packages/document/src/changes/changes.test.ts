import fc from 'fast-check';
import type { Delta, Edit, LogEntry } from '../schema/change.js';
import { shiftDonor } from '../schema/donor.js';
import type { Records } from '../schema/records.js';
import { testId, testRecords, testRepair } from '../render/test-picture.js';
import { historyOf } from './history.js';
import { applyEdits, BadChange, deltasOf, repeat, reverse } from './records.js';

const repairOf = (n: number, width: number) =>
  testRepair(
    n,
    { kind: 'dab', at: [n, n] },
    { kind: 'clone', donor: shiftDonor(1, 2), other: null },
    { width },
  );

describe('records', () => {
  test('an edit adds, changes and takes away', () => {
    const added = applyEdits(testRecords([]), [
      { entity: 'repair', id: testId(1, 1), after: repairOf(1, 5) },
    ]);
    expect(added.repairs).toHaveLength(1);
    const gone = applyEdits(added, [{ entity: 'repair', id: testId(1, 1), after: null }]);
    expect(gone.repairs).toHaveLength(0);
  });

  test('a repair without its layer is refused', () => {
    const records = testRecords([repairOf(1, 5)]);
    expect(() => applyEdits(records, [{ entity: 'layer', id: testId(2, 0), after: null }])).toThrow(
      BadChange,
    );
  });

  test('edits that change nothing leave no trace', () => {
    const records = testRecords([repairOf(1, 5)]);
    expect(
      deltasOf(records, [{ entity: 'repair', id: testId(1, 1), after: repairOf(1, 5) }]),
    ).toEqual([]);
  });
});

describe('undo and redo', () => {
  test('follow the log: something new forgets what could be redone', () => {
    const log: Pick<LogEntry, 'version' | 'kind' | 'of'>[] = [
      { version: 1, kind: 'do', of: 1 },
      { version: 2, kind: 'do', of: 2 },
      { version: 3, kind: 'undo', of: 2 },
      { version: 4, kind: 'undo', of: 1 },
      { version: 5, kind: 'redo', of: 1 },
    ];
    expect(historyOf(log)).toEqual({ undo: [1], redo: [2] });
    expect(historyOf([...log, { version: 6, kind: 'do', of: 6 }])).toEqual({
      undo: [1, 6],
      redo: [],
    });
  });

  test('any walk of doing, undoing and redoing ends in the records that the history names', () => {
    const step = fc.oneof(
      fc.record({ n: fc.integer({ min: 0, max: 3 }), width: fc.integer({ min: 0, max: 4 }) }),
      fc.constant('undo' as const),
      fc.constant('redo' as const),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        let records: Records = testRecords([]);
        const log: Pick<LogEntry, 'version' | 'kind' | 'of'>[] = [];
        const deltas = new Map<number, Delta[]>();
        // The plain way to know what is right: a list of states and a place in it.
        const states: Records[] = [records];
        let place = 0;
        for (const s of steps) {
          const version = log.length + 1;
          const { undo, redo } = historyOf(log);
          if (s === 'undo') {
            const of = undo.at(-1);
            if (of === undefined) continue;
            records = applyEdits(records, reverse(deltas.get(of)!));
            log.push({ version, kind: 'undo', of });
            place--;
          } else if (s === 'redo') {
            const of = redo.at(-1);
            if (of === undefined) continue;
            records = applyEdits(records, repeat(deltas.get(of)!));
            log.push({ version, kind: 'redo', of });
            place++;
          } else {
            const edit: Edit = {
              entity: 'repair',
              id: testId(1, s.n),
              after: s.width ? repairOf(s.n, s.width) : null,
            };
            deltas.set(version, deltasOf(records, [edit]));
            records = applyEdits(records, [edit]);
            log.push({ version, kind: 'do', of: version });
            states.length = ++place;
            states.push(records);
          }
          const sorted = (r: Records) => [...r.repairs].sort((a, b) => a.id.localeCompare(b.id));
          expect(sorted(records)).toEqual(sorted(states[place]!));
        }
      }),
      { seed: 3, numRuns: 200 },
    );
  });
});
