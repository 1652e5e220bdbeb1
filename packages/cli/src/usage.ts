import { availableParallelism } from 'node:os';
import type { ParseArgsConfig } from 'node:util';
import { parseArgs } from 'node:util';

/** The command line cannot be followed: the message is the one line the person gets. */
export class BadUsage extends Error {}

type Options = NonNullable<ParseArgsConfig['options']>;

/** Reads one input file and options. @throws BadUsage */
export function readArguments<T extends Options>(args: string[], options: T) {
  const { inputs, values } = readMany(args, options);
  const [input, ...more] = inputs;
  if (more.length) throw new BadUsage(`one picture at a time; '${more[0]}' is too many`);
  return { input: input!, values };
}

/** Reads one or more input files and options. @throws BadUsage */
export function readMany<T extends Options>(args: string[], options: T) {
  try {
    const { values, positionals } = parseArgs({ args, options, allowPositionals: true });
    if (!positionals.length) throw new BadUsage('name the picture to work on');
    return { inputs: positionals, values };
  } catch (error) {
    throw error instanceof BadUsage ? error : new BadUsage((error as Error).message);
  }
}

/** An option that must be there. @throws BadUsage */
export function needed(value: unknown, name: string): string {
  if (typeof value !== 'string' || !value) throw new BadUsage(`--${name} is missing`);
  return value;
}

/** A number within limits. @throws BadUsage */
export function numberOf(
  value: unknown,
  name: string,
  least: number,
  most: number,
  preset: number,
): number {
  if (value === undefined) return preset;
  const n = Number(value);
  if (!Number.isFinite(n) || n < least || n > most)
    throw new BadUsage(`--${name} takes a number from ${least} to ${most}, not '${String(value)}'`);
  return n;
}

/** Two numbers joined by a dash, least-most. @throws BadUsage */
export function rangeOf(
  value: string | undefined,
  name: string,
  least: number,
  most: number,
  preset: readonly [number, number],
): readonly [number, number] {
  if (value === undefined) return preset;
  const [a, b] = value.split('-').map(Number);
  const fits = (n: number | undefined): n is number => n !== undefined && n >= least && n <= most;
  if (!/^[\d.]+-[\d.]+$/.test(value) || !fits(a) || !fits(b) || a > b)
    throw new BadUsage(`--${name} takes two numbers from ${least} to ${most}, as in 80-125`);
  return [a, b];
}

/** How many threads to use. @throws BadUsage */
export function threadsOf(value: string | undefined): number {
  return Math.round(numberOf(value, 'threads', 1, 64, availableParallelism()));
}
