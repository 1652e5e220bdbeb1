import { REPAIR_KERNEL } from '../repair/repair-kernel.js';
import { SOLVE_KERNEL } from '../solve/solve-kernel.js';
import { openArena, zero } from './arena.js';

test('shared memory grows without losing what there was, and other kernels work on it', () => {
  const arena = openArena<object>(REPAIR_KERNEL, 64, 1, { shared: true });
  const before = arena.floats(16).fill(3);
  const more = arena.more(1_000_000, 2);
  const [a, b] = [more.floats(4), more.bytes(900_000)];
  expect(a.byteOffset).toBeGreaterThanOrEqual(before.byteOffset + before.byteLength);
  expect(b.every((v) => v === 0)).toBe(true);
  expect([...before]).toEqual(Array(16).fill(3));
  a.set([1, 2, 3, 4]);
  const sums = more.doubles(4);
  const { kernel, room } = arena.join<Record<'dot', (...args: number[]) => void>>(SOLVE_KERNEL);
  expect(room.memory).toBe(arena.room.memory);
  // One cell of four lanes with itself.
  kernel.dot(a.byteOffset, a.byteOffset, sums.byteOffset, 0, 0, 1);
  expect([...sums]).toEqual([1, 4, 9, 16]);
});

test('zeroes so many bytes and hardly more', () => {
  const bytes = new Uint8Array(96).fill(7);
  zero(bytes.buffer, 16, 16 + 33);
  expect([...bytes].map((v, k) => (v ? k : -1)).filter((k) => k >= 0)).toEqual(
    [...bytes.keys()].filter((k) => k < 16 || k >= 64),
  );
});
