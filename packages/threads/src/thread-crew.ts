import { availableParallelism } from 'node:os';
import { MessageChannel, Worker } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import type { Crew, Range, Room } from '@tersum/core';
import { alone } from '@tersum/core';
import { CONTROL, HELPER, MOST_ARGUMENTS, MOST_RANGES, RANGE_BITS } from './helper.js';

const LOW = (1 << RANGE_BITS) - 1;
const TURN_BITS = 2 * RANGE_BITS;

/**
 * The calling thread and helpers of its own. It waits for the last range with Atomics.wait, so it must not be used on a
 * thread that has to stay awake.
 */
export class ThreadCrew implements Crew {
  private readonly words = new Int32Array(new SharedArrayBuffer(4 * 8));
  private readonly numbers = new Float64Array(
    new SharedArrayBuffer(8 * (MOST_ARGUMENTS + 2 * MOST_RANGES)),
  );
  private readonly helpers: { readonly worker: Worker; readonly port: MessagePort }[] = [];
  private room: Room | null = null;
  private names: readonly string[] = [];
  /** What helpers know a room by, and its functions in the order that they know them by. */
  private readonly rooms = new Map<
    Room,
    { readonly id: number; readonly names: readonly string[] }
  >();
  private made = 0;
  private turn = 0;

  /** @param threads how many threads, the calling one included @default one a core */
  constructor(readonly threads: number = availableParallelism()) {
    for (let k = 1; k < threads; k++) {
      const { port1, port2 } = new MessageChannel();
      const worker = new Worker(HELPER, {
        eval: true,
        // Plain script: whatever the program was started with is not needed, and costs time.
        execArgv: [],
        workerData: { words: this.words, numbers: this.numbers, port: port2 },
        transferList: [port2],
      });
      worker.unref();
      port1.unref();
      this.helpers.push({ worker, port: port1 });
    }
  }

  run(room: Room, name: string, args: readonly number[], ranges: readonly Range[]): void {
    if (!this.helpers.length || ranges.length < 2) return alone.run(room, name, args, ranges);
    if (args.length > MOST_ARGUMENTS || ranges.length > MOST_RANGES)
      throw new RangeError('too much for one call');
    const { words, numbers } = this;
    this.enter(room);
    words[CONTROL.name] = this.names.indexOf(name);
    words[CONTROL.arguments] = args.length;
    numbers.set(args);
    ranges.forEach((range, k) => numbers.set(range, MOST_ARGUMENTS + 2 * k));
    Atomics.store(words, CONTROL.done, 0);
    this.turn = (this.turn + 1) & 0x3fff;
    Atomics.store(words, CONTROL.ticket, (this.turn << TURN_BITS) | (ranges.length << RANGE_BITS));
    Atomics.notify(words, CONTROL.ticket);
    this.help(room, name, args, ranges);
    for (let done; (done = Atomics.load(words, CONTROL.done)) < ranges.length;)
      Atomics.wait(words, CONTROL.done, done);
    if (Atomics.exchange(words, CONTROL.failed, 0)) throw new Error('a helper thread failed');
  }

  /** Ends the helpers. */
  async close(): Promise<void> {
    Atomics.store(this.words, CONTROL.ended, 1);
    Atomics.add(this.words, CONTROL.ticket, 1 << TURN_BITS);
    Atomics.notify(this.words, CONTROL.ticket);
    await Promise.all(this.helpers.splice(0).map(({ worker }) => worker.terminate()));
  }

  /** Tells the helpers which room is worked in. They keep rooms of one memory: work goes from one to the other and back. */
  private enter(room: Room): void {
    if (room === this.room) return;
    const { module, memory } = room;
    if (memory !== this.room?.memory) this.rooms.clear();
    this.room = room;
    let known = this.rooms.get(room);
    if (!known) {
      const first = !this.rooms.size;
      known = { id: ++this.made, names: Object.keys(room.exports).sort() };
      this.rooms.set(room, known);
      for (const { port } of this.helpers)
        port.postMessage({ id: known.id, module, memory, first });
    }
    this.names = known.names;
    this.words[CONTROL.room] = known.id;
  }

  private help(room: Room, name: string, args: readonly number[], ranges: readonly Range[]): void {
    const call = (room.exports as Record<string, (...args: number[]) => void>)[name]!;
    for (;;) {
      const ticket = Atomics.load(this.words, CONTROL.ticket);
      const range = ticket & LOW;
      if (range >= ranges.length) return;
      if (Atomics.compareExchange(this.words, CONTROL.ticket, ticket, ticket + 1) !== ticket)
        continue;
      call(...args, range, ...ranges[range]!);
      Atomics.add(this.words, CONTROL.done, 1);
    }
  }
}
