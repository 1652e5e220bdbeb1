import type { Rect } from '../raster/rect.js';

/** Kinds of findings, in the order they are best mended in: structure, then lines, then spots, then tone. */
export const FINDING_KINDS = [
  'losses',
  'creases',
  'mesh',
  'wires',
  'ink',
  'specks',
  'lines',
  'stains',
  'pulls',
] as const;
export type FindingKind = (typeof FINDING_KINDS)[number];

/** What may be mended: only damage, or also what stood before the camera and distracts. */
export type Policy = 'documentary' | 'picture';

const DAMAGE: readonly FindingKind[] = ['specks', 'lines', 'creases', 'losses', 'stains', 'ink'];

/** The kinds a policy allows, or some of them: see {@link mayBeMended}. */
export function kindsUnder(policy: Policy): readonly FindingKind[] {
  return policy === 'documentary' ? DAMAGE : FINDING_KINDS;
}

/** Whether a policy allows a finding to be mended. */
export function mayBeMended(
  { kind, onBoard }: Pick<Finding, 'kind' | 'onBoard'>,
  policy: Policy,
): boolean {
  return kindsUnder(policy).includes(kind) && !(onBoard && policy === 'documentary');
}

/** Something that may need mending, with what was measured of it. */
export interface Finding {
  readonly kind: FindingKind;
  readonly box: Rect;
  /** Its pixels in the picture, in reading order. */
  readonly pixels: Int32Array;
  /** Pixels of what it is made of: the wires of a mesh, else itself. */
  readonly parts: readonly Int32Array[];
  /** Where a line runs, and its width there, px. */
  readonly line: readonly (readonly [x: number, y: number, width: number])[] | null;
  readonly polarity: 1 | -1;
  /** Told by its colour: its tone says little of where it ends. */
  readonly tinted: boolean;
  /** Writing on a sign, a label or the like: it stood before the camera. */
  readonly onBoard: boolean;
  /** Width of lines, creases and wires; else the diameter of a disc as large; px. */
  readonly size: number;
  /** How far its edges fade out beyond it, px. */
  readonly soft: number;
  /** Greatest extent, px. */
  readonly extent: number;
  /** CIEDE2000 between it and the ring around it. */
  readonly contrast: number;
  /** Distance of the nearest strong edge from its border, px, and that edge's contrast; null with none in sight. */
  readonly nearEdge: { readonly distance: number; readonly contrast: number } | null;
  /** How sure it is that this needs mending, 0..1; 0.5 is the default's limit. */
  readonly score: number;
}
