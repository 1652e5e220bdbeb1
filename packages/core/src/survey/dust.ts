import type { Blemish } from './blemishes.js';
import type { Candidate } from './candidate.js';
import { pixelsUp } from './pixels-up.js';
import type { Speck } from './specks.js';
import { agreed } from './specks.js';

interface Frame {
  readonly width: number;
  readonly height: number;
}

/** How far colour fades at the rim of a blemish, px of its level: tone may not tell. */
const RIM = 1.5;

/** A speck before the picture is asked as a whole. */
export function speckOf(speck: Speck): Candidate {
  const { site, odds, polarity } = speck;
  return { kind: 'specks', pixels: site, odds, polarity, line: null, speck };
}

/** A blemish of a level of a picture, before it is asked as a whole. */
export function blemishOf(
  { pixels, odds, polarity }: Blemish,
  level: number,
  frame: Frame,
): Candidate {
  return {
    kind: 'specks',
    pixels: pixelsUp(pixels, frame.width >> level, level, frame),
    odds,
    polarity,
    line: null,
    tinted: true,
    soft: RIM * 2 ** level,
  };
}

/**
 * Specks and blemishes of a picture as a whole: how dusty it is, is told by what lies on nothing else that was found. The
 * crumbs of a crease, the dots of letters and the fringe of a tear make no picture dusty.
 * @param candidates by {@link speckOf} and {@link blemishOf}
 * @param isElsewhere whether most of something lies on what was found otherwise
 */
export function dustAmong(
  candidates: readonly Candidate[],
  frame: Frame,
  isElsewhere: (candidate: Candidate) => boolean,
): Candidate[] {
  const own = candidates.filter((candidate) => !isElsewhere(candidate));
  const specks = agreed(
    own.flatMap(({ speck }) => speck ?? []),
    frame,
  );
  return [
    ...specks.map(({ site, odds, polarity }) => ({
      kind: 'specks' as const,
      pixels: site,
      odds,
      polarity,
      line: null,
    })),
    ...blemishesBeside(
      specks,
      own.filter(({ speck }) => !speck),
      frame,
    ),
  ];
}

/** Specks on a megapixel that make a scan dusty, and what speaks against blemishes there: specks have colours as well. */
const DUSTY = { each: 8, against: 3 } as const;
/** px round a speck in which its own rim would pass for a blemish. */
const BESIDE = 4;

/** Blemishes, each told once; what is a speck already is none. */
function blemishesBeside(
  specks: readonly Speck[],
  blemishes: readonly Candidate[],
  { width, height }: Frame,
): Candidate[] {
  const taken = new Uint8Array(width * height);
  const sure = specks.filter(({ odds }) => odds > 0);
  for (const { site } of sure)
    for (const p of site)
      for (let v = -BESIDE; v <= BESIDE; v++) {
        const row = p + v * width;
        taken.fill(1, Math.max(0, row - BESIDE), Math.max(0, row + BESIDE + 1));
      }
  const dusty = sure.length > (DUSTY.each * width * height) / 1e6 ? DUSTY.against : 0;
  return blemishes
    .map((blemish) => ({ ...blemish, odds: blemish.odds - dusty }))
    .sort((a, b) => b.odds - a.odds || a.pixels[0]! - b.pixels[0]!)
    .filter(({ pixels }) => {
      if (pixels.some((p) => taken[p])) return false;
      for (const p of pixels) taken[p] = 1;
      return true;
    });
}
