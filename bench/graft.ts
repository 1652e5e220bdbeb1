import { execFile } from 'node:child_process';
import { mkdir, mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { crop, graft } from '@tersum/core';
import type { Raster } from '@tersum/core';
import { CLI, meanOf, PYTHON, sampleCases, scoresOf } from './cases.js';
import { quantile } from './figures.js';
import { demoPicture } from './pictures.js';

const run = promisify(execFile);
const PEERS = join(import.meta.dirname, 'graft-peers.py');
const SIDE = 512;
const ROUNDS = 7;

/** What was pasted in another tone, brought back: held against an exact Poisson solve and OpenCV's seamlessClone. */
export async function graftQuality(): Promise<void> {
  const sample = await sampleCases(['graft']);
  if (!sample) return;
  const { folder, cases } = sample;
  const work = await mkdtemp(join(tmpdir(), 'graft-'));
  await mkdir(join(work, 'ours'));
  for (const { id, input, mask } of cases) {
    const out = join(work, 'ours', `${id}.png`);
    const asked = ['graft', join(folder, input), '--mask', join(folder, mask)];
    await run(process.execPath, [CLI, ...asked, '--donor', '0,0', '--out', out]);
  }
  const list = join(work, 'cases.json');
  await writeFile(list, JSON.stringify(cases));
  await run(PYTHON, [PEERS, 'cases', work, list], { cwd: folder });
  const of = async (name: string): Promise<number> =>
    meanOf(await scoresOf(folder, join(work, name), ['graft']), 'graft', 'de00');
  const [ours, poisson, clone] = [
    await of('ours'),
    await of('poisson'),
    await of('seamless-clone'),
  ];
  console.log(
    `graft, ${cases.length} cases: mean CIEDE2000 ${ours.toFixed(2)}; exact Poisson solve ${poisson.toFixed(2)}: ${(ours / poisson).toFixed(2)} of it (bar: 0.90); seamlessClone ${clone.toFixed(2)}: ${(ours / clone).toFixed(2)} of it (bar: 0.80)`,
  );
}

/** A graft of 512x512 px and seamlessClone of the same site, both on one core. */
export async function graftSpeed(): Promise<void> {
  const picture = await demoPicture('wires.jpg');
  const around = { x: 200, y: 400, width: SIDE + 202, height: SIDE + 202 };
  const at = { x: 300, y: 500, width: SIDE + 2, height: SIDE + 2 };
  const ground = crop(picture, around);
  const below = crop(picture, at);
  const donor = crop(picture, { ...at, x: 900, y: 520 });
  const area = at.width * at.height;
  const coverage = new Float32Array(area);
  for (let y = 1; y <= SIDE; y++) coverage.fill(1, y * at.width + 1, y * at.width + SIDE + 1);
  const ours: number[] = [];
  for (let k = 0; k < ROUNDS; k++) {
    const begin = performance.now();
    graft({ below, donor, valid: new Uint8Array(area).fill(1), coverage }, 1);
    ours.push(performance.now() - begin);
  }
  const work = await mkdtemp(join(tmpdir(), 'graft-'));
  const files = [join(work, 'below.png'), join(work, 'donor.png')];
  for (const [k, raster] of [ground, donor].entries()) await save(raster, files[k]!);
  const { stdout } = await run(PYTHON, [PEERS, 'time', ...files, String(ROUNDS)]);
  const theirs = JSON.parse(stdout) as number[];
  const [own, other] = [quantile(ours, 0.5), quantile(theirs, 0.5)];
  console.log(
    `graft of ${SIDE}x${SIDE} px: median ${own.toFixed(0)} ms, first ${ours[0]!.toFixed(0)} ms; seamlessClone ${other.toFixed(0)} ms: ${(own / other).toFixed(2)} of it (bar: 1)`,
  );
}

async function save({ width, height, channels, data }: Raster, file: string): Promise<void> {
  await sharp(data as Uint8Array, { raw: { width, height, channels: channels as 1 | 3 | 4 } })
    .removeAlpha()
    .png()
    .toFile(file);
}
