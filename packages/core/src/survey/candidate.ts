import type { Finding, FindingKind } from './finding.js';
import type { Speck } from './specks.js';

/** Something found before it is measured; plain data. */
export interface Candidate {
  readonly kind: FindingKind;
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
  readonly line: Finding['line'];
  /** See {@link Finding.tinted}. */
  readonly tinted?: boolean;
  /** What a speck was told by, while the picture has not been asked as a whole. */
  readonly speck?: Speck;
  /** Where it is told better than by a ring, see {@link Finding.contrast}. */
  readonly contrast?: number;
  /** Width of what it is made of, and how far its edges fade, px. */
  readonly size?: number;
  readonly soft?: number;
  /** Pixels of what it is made of, where that has outlines of its own. */
  readonly parts?: readonly Int32Array[];
}
