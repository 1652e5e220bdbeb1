import { setFlagsFromString } from 'node:v8';

/**
 * Has threads begun from now on compile their code themselves. Where as many threads work as there are cores, a
 * compiler beside them takes a core away from one of them, and what it compiles for is meanwhile run slowly.
 */
export function compileInThreads(): void {
  setFlagsFromString('--no-concurrent-recompilation');
}
