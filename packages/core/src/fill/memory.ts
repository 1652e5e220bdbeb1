import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import { MATCH_KERNEL } from './match-kernel.js';

/** Functions of kernels/match.ts. */
export interface Kernel {
  measure(
    pixels: number,
    target: number,
    match: number,
    distance: number,
    width: number,
    count: number,
  ): void;
  improve(
    pixels: number,
    source: number,
    number: number,
    target: number,
    match: number,
    distance: number,
    width: number,
    height: number,
    count: number,
    pass: number,
    seed: number,
  ): void;
  vote(
    pixels: number,
    number: number,
    match: number,
    distance: number,
    trust: number,
    holes: number,
    scratch: number,
    width: number,
    height: number,
    count: number,
    sharpness: number,
  ): void;
}

export type KernelMemory = Arena<Kernel>;

/** Room for arrays of these many bytes in all, each rounded up. @param arrays how many arrays will be cut */
export function kernelMemory(bytes: number, arrays: number): KernelMemory {
  return openArena<Kernel>(MATCH_KERNEL, bytes, arrays);
}
