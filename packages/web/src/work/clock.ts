import type { FindingKind } from '@tersum/core';
import type { WORK_ROOMS, WorkTime } from '@tersum/document';

/** Rooms a picture is worked on in. */
export type WorkRoom = (typeof WORK_ROOMS)[number];

/** Without a sign of life for so long, nobody is working, ms. */
const IDLE = 60_000;
/** A pause of this length is a rest, ms. */
const REST = 180_000;
/** How often time is kept, ms of work. */
const KEEP = 20_000;

/**
 * Counts the time somebody is active at a picture; pauses are left out. What goes by is told in pieces, so that little
 * is lost when the window is closed.
 */
export class WorkClock {
  private last: number;
  private alive: number;
  private unsent = 0;
  private sinceMend = 0;
  private sinceRest = 0;

  /**
   * @param keep is given pieces of time
   * @param now ms, as Date.now
   */
  constructor(
    private readonly room: WorkRoom,
    private readonly keep: (time: WorkTime) => void,
    private readonly now: () => number,
  ) {
    this.last = this.alive = now();
  }

  /** A sign of life: a key, the pointer, the wheel. */
  touch(): void {
    this.advance();
    const quiet = this.now() - this.alive;
    if (quiet >= REST) this.sinceRest = 0;
    this.alive = this.now();
  }

  /** To be called every now and then. */
  tick(): void {
    this.advance();
    if (this.unsent >= KEEP) this.flush();
  }

  /** Findings of a kind were mended: they took the time since the last ones. */
  mended(kind: FindingKind, count: number): void {
    this.advance();
    if (count > 0 && this.sinceMend > 0)
      this.keep({ kind, seconds: Math.min(3600, this.sinceMend / 1000), count });
    this.sinceMend = 0;
  }

  /** Keeps what was not kept yet. */
  flush(): void {
    this.advance();
    if (this.unsent >= 1000)
      this.keep({ kind: this.room, seconds: Math.min(3600, this.unsent / 1000), count: 0 });
    this.unsent = 0;
  }

  /** Minutes of work since the last rest. */
  get worked(): number {
    return this.sinceRest / 60_000;
  }

  /** Somebody says that they rested, or will. */
  rested(): void {
    this.sinceRest = 0;
  }

  /** Counts on to now, but no further than work went on after the last sign of life. */
  private advance(): void {
    const until = Math.min(this.now(), this.alive + IDLE);
    const passed = Math.max(0, until - this.last);
    this.last = this.now();
    this.unsent += passed;
    this.sinceMend += passed;
    this.sinceRest += passed;
  }
}
