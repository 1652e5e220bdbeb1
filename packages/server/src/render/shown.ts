import type { Patch, View } from '@tersum/document';
import type { OpenPicture } from '../pool/tasks.js';

/** A rendered state of a picture. */
export interface Shown {
  readonly view: View;
  /** What the repairs lie on, and its name. */
  readonly picture: OpenPicture;
  readonly base: string;
  readonly patches: readonly Patch[];
  /** The repair each patch belongs to. */
  readonly owners: readonly string[];
}

/** The patches a repair lies on; all of them for a repair that is still to be made. */
export function patchesBelow({ patches, owners }: Shown, repair: string): readonly Patch[] {
  const at = owners.indexOf(repair);
  return at < 0 ? patches : patches.slice(0, at);
}
