import type { Finding, FindingKind } from './finding.js';

/** Something found before it is measured; plain data. */
export interface Candidate {
  readonly kind: FindingKind;
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
  readonly line: Finding['line'];
  /** See {@link Finding.tinted}. */
  readonly tinted?: boolean;
  /** Where it is told better than by a ring, see {@link Finding.contrast}. */
  readonly contrast?: number;
  /** Width of what it is made of, and how far its edges fade, px. */
  readonly size?: number;
  readonly soft?: number;
  /** Of ink: nothing else of it was found. */
  readonly isAlone?: boolean;
  /** See {@link Finding.onBoard}. */
  readonly onBoard?: boolean;
  /** Pixels of what it is made of, where that has outlines of its own. */
  readonly parts?: readonly Int32Array[];
}
