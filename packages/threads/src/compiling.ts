import { setFlagsFromString } from 'node:v8';

/**
 * Has threads compile their own code, those begun from now on all of it, this one its long loops. Where as many threads
 * work as there are cores, a compiler beside them takes a core away from one of them, and what it compiles for is
 * meanwhile run slowly.
 */
export function compileInThreads(): void {
  setFlagsFromString('--no-concurrent-recompilation');
  setFlagsFromString('--no-concurrent-osr');
}

/**
 * The same in a program that ends soon: it has no time to compile its kernels twice, first hastily, then well, and too
 * little memory of its own to be tidied by threads beside it: that was measured to cost a tenth of a fill.
 */
export function compileForOneRun(): void {
  compileInThreads();
  setFlagsFromString('--no-liftoff');
  setFlagsFromString('--no-wasm-dynamic-tiering');
  // Kernels are compiled ahead, whole, while a picture is read.
  setFlagsFromString('--no-wasm-lazy-compilation');
  setFlagsFromString('--no-concurrent-marking');
  setFlagsFromString('--no-parallel-scavenge');
  setFlagsFromString('--no-concurrent-sweeping');
}
