/** Rounded to a tenth: finer than any measure of a finding is known. */
export const tenth = (v: number): number => Math.round(10 * v) / 10;
