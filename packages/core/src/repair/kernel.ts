import type { Kind } from '../wasm/kind.js';
import { kindOf } from '../wasm/kind.js';

/** Functions of kernels/repair.ts for one kind of samples. Addresses in bytes; `copies` and `part` are records there. */
export interface RepairFunctions {
  ask(
    copies: number,
    part: number,
    tie: number,
    ring: number,
    ends: number,
    sums: number,
    held: number,
    asked: number,
  ): void;
  /** @returns how many cells it has tied */
  hold(
    part: number,
    correction: number,
    colours: number,
    drift: number,
    tint: number,
    firmly: number,
  ): number;
  correct(copies: number, part: number, correction: number, colour: number): void;
  misfit(
    copies: number,
    left: number,
    top: number,
    across: number,
    down: number,
    side: number,
    wide: number,
    unlike: number,
    steps: number,
  ): void;
}

/** Functions of kernels/repair.ts. */
export type RepairKernel = {
  readonly [F in 'ask' | 'correct' | 'misfit' as `${F}${Kind}`]: RepairFunctions[F];
} & Readonly<Record<'holdSingle' | 'holdDouble', RepairFunctions['hold']>>;

/** The functions for samples of so many bytes. */
export function functionsFor(kernel: RepairKernel, bytes: number): RepairFunctions {
  const kind = kindOf(bytes);
  return {
    ask: kernel[`ask${kind}`],
    correct: kernel[`correct${kind}`],
    misfit: kernel[`misfit${kind}`],
    hold: kind === 'Bytes' ? kernel.holdSingle : kernel.holdDouble,
  };
}
