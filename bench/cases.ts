import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';

const run = promisify(execFile);
/** The interpreter that has OpenCV, as Debian installs it. */
export const PYTHON = '/usr/bin/python3';
export const CLI = join(import.meta.dirname, '..', 'bin', 'tersum.js');

/** A damaged picture with known truth; paths stand in the folder of the cases. */
export interface Case {
  readonly id: string;
  readonly kind: string;
  readonly input: string;
  readonly mask: string;
}

/** Figures by kind, case and name. */
export type Scores = Record<string, Record<string, Record<string, number>>>;

/**
 * The sample cases of some kinds. They are made by their own script in a folder named by TERSUM_CASES, which also
 * holds the scorer and, built as `pm`, the C++ peer. Says what is missing and gives null when there is none.
 */
export async function sampleCases(
  kinds: readonly string[],
): Promise<{ folder: string; cases: readonly Case[] } | null> {
  const folder = process.env.TERSUM_CASES;
  if (!folder || !existsSync(join(folder, 'manifest.json'))) {
    console.log(
      'Set TERSUM_CASES to the folder in which the sample cases were made (manifest.json, input, mask, truth).',
    );
    return null;
  }
  const { cases } = JSON.parse(await readFile(join(folder, 'manifest.json'), 'utf8')) as {
    cases: Case[];
  };
  return { folder, cases: cases.filter(({ kind }) => kinds.includes(kind)) };
}

/** The scorer's figures for a folder of CASE.png. */
export async function scoresOf(
  folder: string,
  made: string,
  kinds: readonly string[],
): Promise<Scores> {
  const to = `${made}.json`;
  const args = ['score.py', made, '--kinds', kinds.join(','), '--json', to];
  await run(PYTHON, args, { cwd: folder, maxBuffer: 1e8 });
  return JSON.parse(await readFile(to, 'utf8')) as Scores;
}

/** Mean over a kind's cases; geometric for texture, which is a ratio. */
export function meanOf(scores: Scores, kind: string, figure: string): number {
  const values = Object.values(scores[kind] ?? {}).map((s) => s[figure]!);
  if (figure === 'tex')
    return Math.exp(values.reduce((sum, v) => sum + Math.log(v), 0) / values.length);
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}
