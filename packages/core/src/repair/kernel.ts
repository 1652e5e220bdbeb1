import type { Kind } from '../wasm/kind.js';
import { kindOf } from '../wasm/kind.js';

/** Those that there is one of for every kind of samples. */
type OfKind = Pick<RepairFunctions, 'ask' | 'correct' | 'misfit' | 'fineness' | 'grain'>;

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
  places(
    coverage: number,
    width: number,
    left: number,
    top: number,
    right: number,
    bottom: number,
    step: number,
    within: number,
    out: number,
    counts: number,
  ): void;
  fineness(
    samples: number,
    width: number,
    channels: number,
    colours: number,
    places: number,
    count: number,
    each: number,
    out: number,
  ): void;
  grain(
    samples: number,
    coverage: number,
    width: number,
    channels: number,
    colours: number,
    left: number,
    top: number,
    right: number,
    bottom: number,
    deviation: number,
    white: number,
    state: number,
  ): void;
}

/** Functions of kernels/repair.ts. */
export type RepairKernel = {
  readonly [F in keyof OfKind as `${F}${Kind}`]: OfKind[F];
} & Pick<RepairFunctions, 'places'> &
  Readonly<Record<'holdSingle' | 'holdDouble', RepairFunctions['hold']>>;

/** The functions for samples of so many bytes. */
export function functionsFor(kernel: RepairKernel, bytes: number): RepairFunctions {
  const kind = kindOf(bytes);
  return {
    ask: kernel[`ask${kind}`],
    correct: kernel[`correct${kind}`],
    misfit: kernel[`misfit${kind}`],
    places: kernel.places,
    fineness: kernel[`fineness${kind}`],
    grain: kernel[`grain${kind}`],
    hold: kind === 'Bytes' ? kernel.holdSingle : kernel.holdDouble,
  };
}
