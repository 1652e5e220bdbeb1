import type { Kind } from '../wasm/kind.js';
import { kindOf } from '../wasm/kind.js';

/** Those that there is one of for every kind of samples. */
type OfKind = Pick<RepairFunctions, 'fineness' | 'grain'>;

/** Functions of kernels/repair.ts for one kind of samples that one thread runs. Addresses in bytes. */
export interface RepairFunctions {
  box(coverage: number, width: number, height: number, out: number): void;
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

/** Functions of kernels/repair.ts that one thread runs. */
export type RepairKernel = {
  readonly [F in keyof OfKind as `${F}${Kind}`]: OfKind[F];
} & Pick<RepairFunctions, 'box' | 'places'>;

/** The functions for samples of so many bytes. */
export function functionsFor(kernel: RepairKernel, bytes: number): RepairFunctions {
  const kind = kindOf(bytes);
  return {
    box: kernel.box,
    places: kernel.places,
    fineness: kernel[`fineness${kind}`],
    grain: kernel[`grain${kind}`],
  };
}

/** Functions of kernels/repair.ts that threads share, and whether there is one for every kind of samples or of tones. */
const SHARED = {
  blank: 'one',
  layDonors: 'one',
  count: 'one',
  lay: 'one',
  ask: 'samples',
  correct: 'samples',
  layPieces: 'samples',
  hold: 'tones',
  takeOver: 'tones',
  layOver: 'samples',
} as const;
export type SharedFunction = keyof typeof SHARED;

/** What a shared function is called in the kernel, for samples of so many bytes. */
export function sharedName(name: SharedFunction, bytes: number): string {
  const kind = SHARED[name];
  if (kind === 'one') return name;
  if (kind === 'samples') return name + kindOf(bytes);
  return name + (bytes === 1 ? 'Single' : 'Double');
}
