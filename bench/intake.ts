import type { Homography, Quad, Raster } from '@tersum/core';
import {
  autoTone,
  actsOf,
  ciede2000,
  fromUpright,
  inverseOf,
  labOfSrgb,
  levelPicture,
  plainStep,
  printsOn,
  quadTurn,
  seededRandom,
  through,
  tiltOf,
  toned,
  unglare,
} from '@tersum/core';
import { copyMaps, copyShots } from '@tersum/demo';
import { demoPicture, openPicture } from './pictures.js';

const PRINTS = ['wires-truth-no-wires.jpg', 'head-truth.jpg', 'mesh-truth.jpg', 'jug.jpg'] as const;
const LEVEL = ['quay-print-truth.jpg', 'wires-truth-no-wires.jpg', 'huts-wide.jpg'] as const;
const FADED = ['quay-print-truth.jpg', 'mesh-truth.jpg', 'wires-truth-no-wires.jpg'] as const;
const OPEN = ['acanthus-mollis', 'french-alpine-landscape'] as const;

/** Prints on a bed, tilt by content, fading and reflections, each against a truth that is known because it was made. */
export async function benchIntake(): Promise<void> {
  await split();
  await straighten();
  await fading();
  reflections(await demoPicture('quay-print-truth.jpg'));
}

async function split(): Promise<void> {
  const prints = await Promise.all(PRINTS.map(demoPicture));
  const [width, height] = [3400, 4600];
  const random = seededRandom(12);
  const bed: Raster = { width, height, channels: 3, data: new Uint8Array(width * height * 3) };
  for (let i = 0; i < bed.data.length; i++) bed.data[i] = 240 + random.between(-2, 2);
  const truth = prints.map((print, k): Quad => {
    const scale = Math.min(1400 / print.width, 1900 / print.height);
    const [w, h] = [print.width * scale, print.height * scale];
    const turn = (random.between(-90, 90) / 10) * (Math.PI / 180);
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const [cx, cy] = [850 + 1700 * (k % 2), 1150 + 2300 * (k >> 1)];
    return [
      [-w / 2, -h / 2],
      [w / 2, -h / 2],
      [w / 2, h / 2],
      [-w / 2, h / 2],
    ].map(([x, y]) => [cx + x! * c - y! * s, cy + x! * s + y! * c]) as unknown as Quad;
  });
  truth.forEach((quad, k) => laidOn(bed, prints[k]!, quad));
  const found = printsOn(bed);
  const errors = truth.map((quad) => {
    const off = found.map((f) => quad.map((corner, k) => distance(corner, f.quad[k]!)));
    const best = off.sort((a, b) => sum(a) - sum(b))[0] ?? [Infinity];
    const turn = Math.min(...found.map((f) => Math.abs(quadTurn(f.quad) - quadTurn(quad))));
    return { mean: sum(best) / best.length, most: Math.max(...best), turn };
  });
  console.log(
    `split, ${truth.length} prints at 400 ppi: ${found.length} found, corners ${mean(errors.map((e) => e.mean)).toFixed(2)} px, ` +
      `most ${Math.max(...errors.map((e) => e.most)).toFixed(2)} (bar 3), angle at most ${Math.max(...errors.map((e) => e.turn)).toFixed(3)} degrees off (bar 0.1)`,
  );
}

/** A print laid on a bed, each pixel by the share of it the print covers. */
function laidOn(bed: Raster, print: Raster, quad: Quad): void {
  const back = inverseOf(fromUpright(quad, print.width, print.height));
  const over = 4;
  const xs = quad.map(([x]) => x);
  const ys = quad.map(([, y]) => y);
  for (let y = Math.floor(Math.min(...ys)); y <= Math.max(...ys) + 1; y++)
    for (let x = Math.floor(Math.min(...xs)); x <= Math.max(...xs) + 1; x++) {
      const add = [0, 0, 0];
      let covered = 0;
      for (let k = 0; k < over * over; k++) {
        const at = [
          x + ((k % over) + 0.5) / over - 0.5,
          y + ((k >> 2) + 0.5) / over - 0.5,
        ] as const;
        const [u, v] = through(back, [at[0], at[1]]);
        if (u < -0.5 || v < -0.5 || u >= print.width - 0.5 || v >= print.height - 0.5) continue;
        covered++;
        const p = (Math.round(v) * print.width + Math.round(u)) * print.channels;
        for (let c = 0; c < 3; c++) add[c]! += print.data[p + c]!;
      }
      const i = 3 * (y * bed.width + x);
      for (let c = 0; c < 3; c++)
        bed.data[i + c] = (add[c]! + (over * over - covered) * bed.data[i + c]!) / (over * over);
    }
}

async function straighten(): Promise<void> {
  const off: number[] = [];
  for (const name of LEVEL) {
    const picture = await demoPicture(name);
    const own = tiltOf(picture).angle;
    for (const angle of [-2.7, 1.9, 4.1])
      off.push(Math.abs(tiltOf(levelPicture(picture, -angle)).angle - own - angle));
  }
  console.log(
    `straighten by content, ${off.length} cases: ${off.map((d) => d.toFixed(2)).join(', ')} degrees off (bar 0.15)`,
  );
}

/** Fading as dyes lose density: black lifted, white lowered, mid-tones shifted, a channel, and corners darker. */
async function fading(): Promise<void> {
  const pictures = [
    ...(await Promise.all(FADED.map(demoPicture))),
    ...(await Promise.all(OPEN.map(openPicture))),
  ];
  const random = seededRandom(5);
  const rows = pictures.map((truth) => {
    const fade = [0, 1, 2].map(() => ({
      low: random.between(30, 75),
      high: random.between(175, 235),
      gamma: random.between(85, 120) / 100,
    }));
    const corners = random.between(5, 20) / 100;
    const faded = fadedBy(truth, fade, corners);
    const mended = toned(faded, actsOf(autoTone(faded)).map(plainStep));
    return [
      difference(truth, faded),
      difference(truth, mended),
      difference(truth, stretched(faded)),
    ];
  });
  const show = (k: number): string => rows.map((row) => row[k]!.toFixed(1)).join(', ');
  console.log(
    `fading, mean CIEDE2000 to the truth: faded ${show(0)}; undone ${show(1)}; channels stretched ${show(2)} ` +
      `(${(mean(rows.map((r) => r[1]!)) / mean(rows.map((r) => r[2]!))).toFixed(2)} of the stretch, bar 0.9 of the best peer)`,
  );
}

function fadedBy(
  picture: Raster,
  fade: readonly { low: number; high: number; gamma: number }[],
  corners: number,
): Raster {
  const { width, height, channels } = picture;
  const data = picture.data.map((code, i) => {
    const p = Math.floor(i / channels);
    const [x, y] = [(p % width) / width - 0.5, Math.floor(p / width) / height - 0.5];
    const { low, high, gamma } = fade[i % channels]!;
    return (low + (high - low) * (code / 255) ** gamma) * (1 - 2 * corners * (x * x + y * y));
  });
  return { ...picture, data };
}

/** What a plain automatic stretch makes of it: each channel from its 0.5 % to its 99.5 % quantile. */
function stretched(picture: Raster): Raster {
  const { channels, data } = picture;
  const ends = Array.from({ length: channels }, (_, c) => {
    const sorted = data.filter((_, i) => i % channels === c).sort();
    return [sorted[Math.floor(0.005 * sorted.length)]!, sorted[Math.floor(0.995 * sorted.length)]!];
  });
  const out = data.map((v, i) => {
    const [low, high] = ends[i % channels]!;
    return Math.max(0, Math.min(255, (255 * (v - low!)) / Math.max(1, high! - low!)));
  });
  return { ...picture, data: out };
}

/** Registration against the stand's own maps, and what is left of reflections against the same shot without any. */
function reflections(print: Raster): void {
  for (const seed of [7, 8]) {
    const shots = copyShots(print, 3, seed);
    const [clean] = copyShots(print, 3, seed, false) as [Raster];
    const maps = copyMaps(print, 3, seed);
    const start = performance.now();
    const { picture, maps: found } = unglare(shots);
    const seconds = (performance.now() - start) / 1000;
    const { width, height } = clean;
    const off = found.flatMap((map, k) =>
      k && map ? offsets(map, maps[k]!, maps[0]!, width, height) : [],
    );
    const former = Uint8Array.from({ length: width * height }, (_, p) =>
      Math.abs(shots[0]!.data[3 * p + 1]! - clean.data[3 * p + 1]!) > 6 ? 1 : 0,
    );
    console.log(
      `reflections, 3 shots of ${((width * height) / 1e6).toFixed(1)} MP: registered ${mean(off).toFixed(3)} px off, most ${Math.max(...off).toFixed(2)} (bar 0.5); ` +
        `residue in former glare ${difference(clean, picture, former).toFixed(2)} CIEDE2000 (bar 2), with it ${difference(clean, shots[0]!, former).toFixed(1)}; ${seconds.toFixed(1)} s`,
    );
  }
}

/** How far a map of shot to first shot is off, px, at places all over the print. */
function offsets(
  map: Homography,
  own: Homography,
  first: Homography,
  width: number,
  height: number,
): number[] {
  const back = inverseOf(first);
  return Array.from({ length: 100 }, (_, k) => {
    const at = [
      0.1 * width + 0.8 * width * ((k % 10) / 9),
      0.1 * height + 0.8 * height * (Math.floor(k / 10) / 9),
    ] as const;
    return distance(through(map, [at[0], at[1]]), through(back, through(own, [at[0], at[1]])));
  });
}

/** Mean CIEDE2000, of every third pixel. @param where 1 = counts */
function difference(one: Raster, other: Raster, where?: Uint8Array): number {
  const lab = ({ data, channels }: Raster, p: number) => {
    const at = (c: number): number => data[p * channels + (channels < 3 ? 0 : c)]! / 255;
    return labOfSrgb(at(0), at(1), at(2));
  };
  let [total, count] = [0, 0];
  for (let p = 0; p < one.width * one.height; p += 3) {
    if (where && !where[p]) continue;
    total += ciede2000(lab(one, p), lab(other, p));
    count++;
  }
  return total / count;
}

const distance = ([x, y]: readonly [number, number], [u, v]: readonly [number, number]): number =>
  Math.hypot(x - u, y - v);
const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
const mean = (values: readonly number[]): number => sum(values) / values.length;
