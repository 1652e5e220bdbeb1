/** A site and where its pixels were copied from, a value a pixel of a picture. */
export interface Copies {
  /** The pixel it is copied from, -1 outside the site. */
  readonly from: Int32Array;
  /** 1 inside the site. */
  readonly mask: Uint8Array;
}
