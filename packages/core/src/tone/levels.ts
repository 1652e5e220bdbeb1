/** Black, white and middle of one channel. */
export interface Levels {
  /** Value 0..1 that becomes black; below 0 leaves black lighter than it could be. */
  readonly black: number;
  /** Value that becomes white, more than `black`; above 1 leaves white darker than it could be. */
  readonly white: number;
  /** Exponent's inverse: over 1 the middle gets lighter. */
  readonly gamma: number;
}

export const NO_LEVELS: Levels = { black: 0, white: 1, gamma: 1 };

/** Limits of what may be asked for. */
export const LEVELS_LIMITS = { black: [-0.5, 0.95], white: [0.05, 1.5], gamma: [0.2, 5] } as const;

/** The value that `v` (0..1) becomes, 0..1: ((v - black) / (white - black)) ^ (1 / gamma). */
export function levelled(v: number, { black, white, gamma }: Levels): number {
  const t = (v - black) / (white - black);
  if (t <= 0) return 0;
  if (t >= 1) return 1;
  return gamma === 1 ? t : Math.pow(t, 1 / gamma);
}

/** Whether levels leave everything as it is. */
export function isPlain({ black, white, gamma }: Levels): boolean {
  return black === 0 && white === 1 && gamma === 1;
}
