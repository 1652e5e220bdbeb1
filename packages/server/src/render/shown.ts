import type { Raster } from '@tersum/core';
import { shift } from '@tersum/core';
import type { Patch, View } from '@tersum/document';
import type { OpenPicture } from '../pool/tasks.js';
import type { Base } from './bases.js';

/** A rendered state of a picture. */
export interface Shown {
  readonly view: View;
  /** What repairs begin from. */
  readonly base: Base;
  /** The same on the canvas that the records ask for, and the name of that. */
  readonly picture: OpenPicture;
  readonly name: string;
  readonly patches: readonly Patch[];
  /** The same, counted from the corner of the canvas. */
  readonly tiled: Tiled;
  /** The repair each patch belongs to. */
  readonly owners: readonly string[];
  /** The repair that made the canvas another, if any did. */
  readonly widening: string | undefined;
}

/** What tiles are cut of. */
export interface Tiled {
  readonly raster: Raster;
  readonly pyramid: readonly Raster[];
  readonly patches: readonly Patch[];
}

export function tiledOf({ raster, pyramid }: OpenPicture, patches: readonly Patch[]): Tiled {
  const { at, ...placed } = raster;
  if (!at) return { raster, pyramid, patches };
  const moved = patches.map((p) => ({ ...p, rect: shift(p.rect, -at[0], -at[1]) }));
  return { raster: placed, pyramid, patches: moved };
}

/** What a repair lies on: everything, for a repair that is still to be made. */
export function groundOf({ base, picture, patches, owners, widening }: Shown, repair: string) {
  const at = owners.indexOf(repair);
  if (at < 0) return { original: picture.raster, below: patches };
  const wide = widening === undefined ? -1 : owners.indexOf(widening);
  const { raster } = at < wide ? base.picture : picture;
  return { original: raster, below: patches.slice(0, at) };
}

/** The mended picture as it is without its widening. */
export function withoutWidening({ base, patches, owners, widening }: Shown) {
  const at = widening === undefined ? -1 : owners.indexOf(widening);
  return { original: base.picture.raster, patches: at < 0 ? patches : patches.slice(0, at) };
}
