/** Words of the block that caller and helpers share; it ends with the arguments of the call, 64 bits each. */
export const CONTROL = {
  ticket: 0,
  done: 1,
  ended: 2,
  failed: 3,
  room: 4,
  name: 5,
  arguments: 6,
} as const;
export const MOST_ARGUMENTS = 24;
export const MOST_RANGES = 64;
/** A ticket's low bits say which range is next, the ones above how many there are. */
export const RANGE_BITS = 8;

/**
 * What a helper does, as text: threads are started from it, so it needs no file of its own wherever the program was
 * bundled to. It takes ranges while the ticket has any: whoever holds a range keeps the call's arguments in place, since
 * the caller does not go on before all are done.
 */
export const HELPER = `
const { workerData, receiveMessageOnPort } = require('node:worker_threads');
const { words, numbers, port } = workerData;
const C = ${JSON.stringify(CONTROL)};
const LOW = ${(1 << RANGE_BITS) - 1};
const kernels = new Map();
while (!Atomics.load(words, C.ended)) {
  const ticket = Atomics.load(words, C.ticket);
  const range = ticket & LOW;
  const count = (ticket >>> ${RANGE_BITS}) & LOW;
  if (range >= count) {
    Atomics.wait(words, C.ticket, ticket);
    continue;
  }
  if (Atomics.compareExchange(words, C.ticket, ticket, ticket + 1) !== ticket) continue;
  try {
    for (let sent; !kernels.has(words[C.room]) && (sent = receiveMessageOnPort(port)); ) {
      const { id, module, memory, first } = sent.message;
      const abort = () => { throw new Error('a kernel gave up'); };
      if (first) kernels.clear();
      const { exports } = new WebAssembly.Instance(module, { env: { memory, abort } });
      kernels.set(id, Object.keys(exports).sort().map((name) => exports[name]));
    }
    const call = kernels.get(words[C.room])[words[C.name]];
    const args = Array.from(numbers.subarray(0, words[C.arguments]));
    const at = ${MOST_ARGUMENTS} + 2 * range;
    call(...args, range, numbers[at], numbers[at + 1]);
  } catch {
    Atomics.store(words, C.failed, 1);
  }
  if (Atomics.add(words, C.done, 1) + 1 === count) Atomics.notify(words, C.done);
}
`;
