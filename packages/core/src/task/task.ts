/** What a long operation gets from whoever started it. */
export interface Task {
  /** Ends the operation at its next check. */
  readonly signal?: { readonly aborted: boolean };
  /** Called with the share done, 0..1, rising. */
  readonly progress?: (share: number) => void;
}

/** Thrown by an operation whose task was cancelled. */
export class Cancelled extends Error {
  constructor() {
    super('cancelled');
    this.name = 'Cancelled';
  }
}

/** Reports `share` and ends the operation when its task was cancelled. @throws Cancelled */
export function checkpoint(task: Task | undefined, share: number): void {
  if (task?.signal?.aborted) throw new Cancelled();
  task?.progress?.(share);
}

/** The part of `task` that covers the shares from..to of the whole. */
export function portionOf(task: Task | undefined, from: number, to: number): Task {
  return {
    ...(task?.signal ? { signal: task.signal } : {}),
    progress: (share) => task?.progress?.(from + (to - from) * share),
  };
}
