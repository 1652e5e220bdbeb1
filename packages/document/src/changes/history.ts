import type { LogEntry } from '../schema/change.js';

/** What undo and redo would act on: versions of 'do' entries, the next one last. */
export interface History {
  readonly undo: readonly number[];
  readonly redo: readonly number[];
}

/** Follows the log from its beginning. Doing something new forgets what could be done again. */
export function historyOf(log: readonly Pick<LogEntry, 'version' | 'kind' | 'of'>[]): History {
  const undo: number[] = [];
  let redo: number[] = [];
  for (const entry of log) {
    if (entry.kind === 'do') {
      undo.push(entry.version);
      redo = [];
    } else if (entry.kind === 'undo') {
      undo.pop();
      redo.push(entry.of);
    } else {
      redo.pop();
      undo.push(entry.of);
    }
  }
  return { undo, redo };
}
