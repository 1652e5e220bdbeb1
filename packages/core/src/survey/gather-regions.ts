import type { Raster } from '../raster/raster.js';
import type { Blemish } from './blemishes.js';
import type { Candidate } from './candidate.js';
import type { FindingKind } from './finding.js';
import { pixelsUp } from './pixels-up.js';
import type { Speck } from './specks.js';
import { agreed } from './specks.js';
import type { Studied } from './studies.js';

/** Specks, blemishes, losses, stains and pulls that studies come to. */
export function regionsFrom(picture: Raster, studied: readonly Studied[]): Candidate[] {
  const found: Candidate[] = [];
  const specks = agreed(
    studied.flatMap((s) => (s.of === 'specks' ? s.specks : [])),
    picture,
  );
  for (const { site, odds, polarity } of specks)
    found.push({ kind: 'specks', pixels: site, odds, polarity, line: null });
  for (const blemish of blemishesAmong(specks, studied, picture))
    found.push({ kind: 'specks', line: null, tinted: true, ...blemish });
  for (const s of studied) {
    if (s.of !== 'losses' && s.of !== 'tones') continue;
    const width = picture.width >> s.level || 1;
    const add = (
      kind: FindingKind,
      list: readonly (Pick<Candidate, 'pixels' | 'odds' | 'contrast'> & { polarity?: 1 | -1 })[],
    ): void => {
      for (const { polarity = 1, ...region } of list)
        found.push({
          ...region,
          kind,
          pixels: pixelsUp(region.pixels, width, s.level, picture),
          polarity,
          line: null,
        });
    };
    if (s.of === 'losses') add('losses', s.losses);
    else {
      add('stains', s.stains);
      add('pulls', s.pulls);
    }
  }
  return found;
}

/** Specks on a megapixel that make a scan dusty, and what speaks against blemishes there: specks have colours as well. */
const DUSTY = { each: 8, against: 3 } as const;

/** How far colour fades at the rim of a blemish, px of its level: tone may not tell. */
const RIM = 1.5;
/** px round a speck in which its own rim would pass for a blemish. */
const BESIDE = 4;

/** Blemishes in the picture, each told once; what is a speck already is none. */
function blemishesAmong(
  specks: readonly Speck[],
  studied: readonly Studied[],
  picture: Raster,
): (Blemish & Pick<Candidate, 'soft'>)[] {
  const { width, height } = picture;
  const taken = new Uint8Array(width * height);
  const sure = specks.filter(({ odds }) => odds > 0);
  for (const { site } of sure)
    for (const p of site)
      for (let v = -BESIDE; v <= BESIDE; v++) {
        const row = p + v * width;
        taken.fill(1, Math.max(0, row - BESIDE), Math.max(0, row + BESIDE + 1));
      }
  const dusty = sure.length > (DUSTY.each * width * height) / 1e6 ? DUSTY.against : 0;
  return studied
    .flatMap((s) =>
      s.of === 'blemishes' ? s.blemishes.map((b) => ({ ...b, level: s.level })) : [],
    )
    .map(({ pixels, odds, polarity, level }) => ({
      pixels: pixelsUp(pixels, width >> level, level, picture),
      odds: odds - dusty,
      polarity,
      soft: RIM * 2 ** level,
    }))
    .sort((a, b) => b.odds - a.odds || a.pixels[0]! - b.pixels[0]!)
    .filter(({ pixels }) => {
      if (pixels.some((p) => taken[p])) return false;
      for (const p of pixels) taken[p] = 1;
      return true;
    });
}
