/** How a picture will be looked at. */
export interface IntendedUse {
  /** Samples per inch of the print it was scanned from, or of its print size. */
  readonly ppi: number;
  /** Size of the use over that of the print. */
  readonly enlargement: number;
  /** Viewing distance, mm. */
  readonly distance: number;
}

/** A print held in the hand, at its own size. */
export const IN_THE_HAND = { enlargement: 1, distance: 300 } as const;
/** What is taken where a picture does not tell its samples per inch: common practice for prints. */
export const USUAL_PPI = 300;

/** 1 arc minute of visual angle (normal acuity, ISO 8596), mm for every mm of distance. */
const ARC_MINUTE = Math.PI / 180 / 60;
/** Lightness and colour differences below this are not seen side by side (common practice), CIEDE2000. */
const LEAST_CONTRAST = 2;

/** Full width at half height of a Gaussian, standard deviations. */
const FWHM = 2 * Math.sqrt(2 * Math.LN2);

/** Size of so many px in the original print, mm. */
export function millimetres(px: number, ppi: number): number {
  return (px * 25.4) / ppi;
}

/** The smallest size that shows from a distance, mm. */
export function smallestSeen(distance: number): number {
  return distance * ARC_MINUTE;
}

/**
 * How far the eye spreads a point at a distance, mm (standard deviation). The eye's line spread is about one arc minute
 * wide at half its height in daylight (Campbell and Gubisch, J. Physiol. 186, 1966; value from memory).
 */
export function eyeSpread(distance: number): number {
  return smallestSeen(distance) / FWHM;
}

/** How far the eye spreads a point of a picture at its intended use, px of the picture. */
export function spreadAtUse(use: IntendedUse): number {
  return eyeSpread(use.distance) / (millimetres(1, use.ppi) * use.enlargement);
}

/** Whether a mark of a size, px, and a contrast, CIEDE2000, shows at the intended use. */
export function shows(size: number, contrast: number, use: IntendedUse): boolean {
  const seen = millimetres(size, use.ppi) * use.enlargement;
  return seen >= smallestSeen(use.distance) && contrast >= LEAST_CONTRAST;
}
