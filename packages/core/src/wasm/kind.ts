/** Kinds of samples that kernels have functions for, as those are named. */
export type Kind = 'Bytes' | 'Words' | 'Floats';

/** The kind of samples of so many bytes. */
export function kindOf(bytes: number): Kind {
  return bytes === 1 ? 'Bytes' : bytes === 2 ? 'Words' : 'Floats';
}
