import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { loadOpenCV } from '@opencvjs/web';
import type { Case, Scores } from './cases.js';
import { CLI, meanOf, sampleCases, scoresOf } from './cases.js';

const run = promisify(execFile);
const KINDS = ['dust', 'hair', 'crease', 'wires', 'lattice', 'text', 'object', 'torn', 'extend'];
const FIGURES = ['ssim', 'de00', 'tex', 'swdt', 'worst_seam'] as const;

/** Mends one case into `out`. @returns processor seconds of the engine alone */
type Engine = (folder: string, one: Case, out: string) => Promise<number>;

/** Runs the fill and its peers in turn on the sample cases and prints means and ratios a kind. */
export async function benchFill(): Promise<void> {
  const kinds = (process.env.TERSUM_KINDS ?? KINDS.join(',')).split(',');
  const sample = await sampleCases(kinds);
  if (!sample) return;
  const { folder, cases } = sample;
  const engines: Record<string, Engine> = {
    ours: (at, one, out) => ours(at, one, out, 1),
    'two threads': (at, one, out) => ours(at, one, out, 2),
    ...(existsSync(join(folder, 'pm'))
      ? {
          patchmatch: (at: string, one: Case, out: string) => patchMatch(at, one, out, 1),
          'patchmatch on two': (at: string, one: Case, out: string) => patchMatch(at, one, out, 2),
        }
      : {}),
    telea: (at, one, out) => inpaint(at, one, out, 'telea'),
    'navier-stokes': (at, one, out) => inpaint(at, one, out, 'ns'),
  };
  const work = await mkdtemp(join(tmpdir(), 'fill-'));
  const cost: Record<string, Record<string, number>> = {};
  for (const name of Object.keys(engines)) await mkdir(join(work, name), { recursive: true });
  for (const one of cases)
    for (const [name, engine] of Object.entries(engines)) {
      const seconds = await engine(folder, one, join(work, name, `${one.id}.png`));
      (cost[name] ??= {})[one.kind] = (cost[name]![one.kind] ?? 0) + seconds;
    }
  const scores: Record<string, Scores> = {};
  for (const name of Object.keys(engines))
    scores[name] = await scoresOf(folder, join(work, name), kinds);
  const peers = ['patchmatch', 'telea', 'navier-stokes'].filter((name) => name in engines);
  for (const kind of kinds) {
    console.log(`\n${kind}`);
    for (const name of ['ours', ...peers])
      console.log(
        `  ${name.padEnd(14)} ${FIGURES.map((f) => `${f} ${meanOf(scores[name]!, kind, f).toFixed(3)}`).join('  ')}  processor ${cost[name]![kind]!.toFixed(2)} s`,
      );
    const best = (f: (typeof FIGURES)[number], pick: (...v: number[]) => number): number =>
      meanOf(scores.ours!, kind, f) / pick(...peers.map((p) => meanOf(scores[p]!, kind, f)));
    console.log(
      `  of the best peer here: ssim ${best('ssim', Math.max).toFixed(3)}  de00 ${best('de00', Math.min).toFixed(3)}  swdt ${best('swdt', Math.min).toFixed(3)}` +
        (cost.patchmatch
          ? `; processor ${(cost.ours![kind]! / cost.patchmatch[kind]!).toFixed(2)} of patchmatch's`
          : ''),
    );
    const gain = (of: string): string =>
      (wall[`${of} 1`]![kind]! / wall[`${of} 2`]![kind]!).toFixed(2);
    // What the machine gives a second thread just now shows in the peer's.
    console.log(
      `  two threads finish ${gain('ours')} times as fast as one` +
        (cost.patchmatch ? `; patchmatch's ${gain('patchmatch')}` : ''),
    );
  }
}

/** Milliseconds by engine and threads, and by kind. */
const wall: Record<string, Record<string, number>> = {};

function took(engine: string, kind: string, ms: number): void {
  const times = (wall[engine] ??= {});
  times[kind] = (times[kind] ?? 0) + ms;
}

async function ours(folder: string, one: Case, out: string, threads: number): Promise<number> {
  const { stdout } = await run(process.execPath, [
    CLI,
    'fill',
    join(folder, one.input),
    '--mask',
    join(folder, one.mask),
    '--out',
    out,
    '--threads',
    String(threads),
    '--json',
    '-',
  ]);
  const report = JSON.parse(stdout) as { cpu_ms: number; ms: { engine: number } };
  took(`ours ${threads}`, one.kind, report.ms.engine);
  return report.cpu_ms / 1000;
}

/** The plain C++ completion. */
async function patchMatch(
  folder: string,
  one: Case,
  out: string,
  threads: number,
): Promise<number> {
  const [input, mask, result] = ['a.ppm', 'm.pgm', 'o.ppm'].map((f) => `${out}.${f}`);
  const { data, info } = await sharp(join(folder, one.input))
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const hole = await sharp(join(folder, one.mask)).greyscale().raw().toBuffer();
  const size = `${info.width} ${info.height}\n255\n`;
  await writeFile(input!, Buffer.concat([Buffer.from(`P6\n${size}`), data]));
  await writeFile(mask!, Buffer.concat([Buffer.from(`P5\n${size}`), hole]));
  const { stdout } = await run(join(folder, 'pm'), [input!, mask!, result!, String(threads)]);
  const made = await readFile(result!);
  const body = made.subarray(made.length - info.width * info.height * 3);
  await sharp(body, { raw: { width: info.width, height: info.height, channels: 3 } })
    .png()
    .toFile(out);
  const { ms } = JSON.parse(stdout) as { ms: number };
  took(`patchmatch ${threads}`, one.kind, ms);
  return ms / 1000;
}

async function inpaint(
  folder: string,
  one: Case,
  out: string,
  how: 'telea' | 'ns',
): Promise<number> {
  const cv = await loadOpenCV();
  const { data, info } = await sharp(join(folder, one.input))
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const hole = await sharp(join(folder, one.mask)).greyscale().raw().toBuffer();
  const { width, height } = info;
  const src = new cv.Mat(height, width, cv.CV_8UC3);
  src.data.set(data);
  const mask = new cv.Mat(height, width, cv.CV_8UC1);
  mask.data.set(hole.map((v) => (v > 127 ? 255 : 0)));
  const result = new cv.Mat();
  const before = process.cpuUsage();
  cv.inpaint(src, mask, result, 3, how === 'telea' ? cv.INPAINT_TELEA : cv.INPAINT_NS);
  const { user, system } = process.cpuUsage(before);
  await sharp(Buffer.from(result.data), { raw: { width, height, channels: 3 } })
    .png()
    .toFile(out);
  for (const m of [src, mask, result]) m.delete();
  return (user + system) / 1e6;
}
