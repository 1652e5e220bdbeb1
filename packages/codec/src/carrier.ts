import type { Raster } from '@tersum/core';
import { colourChannels } from '@tersum/core';

/** Metadata that travels with exported pixels. */
export interface Baggage {
  readonly icc: Buffer | null;
  readonly exif: Buffer | null;
  readonly ppi: number | null;
  /** An XMP packet. */
  readonly xmp?: string | null;
}

/**
 * An uncompressed TIFF 6.0 file around raw samples, with an ICC profile (tag 34675): the one way to hand
 * pixels and a profile to the encoder without either being converted.
 */
export function carrierTiff(raster: Raster, icc: Buffer | null): Buffer {
  const { width, height, channels, data } = raster;
  const bits = data.BYTES_PER_ELEMENT * 8;
  const alpha = channels === 2 || channels === 4;
  const entries: { tag: number; type: 3 | 4 | 7; values: number[] | Buffer }[] = [
    { tag: 256, type: 4, values: [width] },
    { tag: 257, type: 4, values: [height] },
    { tag: 258, type: 3, values: new Array<number>(channels).fill(bits) },
    { tag: 259, type: 3, values: [1] },
    { tag: 262, type: 3, values: [colourChannels(channels) === 3 ? 2 : 1] },
    { tag: 273, type: 4, values: [0] },
    { tag: 277, type: 3, values: [channels] },
    { tag: 278, type: 4, values: [height] },
    { tag: 279, type: 4, values: [data.byteLength] },
    { tag: 284, type: 3, values: [1] },
    ...(alpha ? [{ tag: 338, type: 3 as const, values: [2] }] : []),
    ...(icc ? [{ tag: 34675, type: 7 as const, values: icc }] : []),
  ];
  const sizes = { 3: 2, 4: 4, 7: 1 } as const;
  const tableEnd = 8 + 2 + entries.length * 12 + 4;
  const extra = entries.map((e) => {
    const size = e.values.length * sizes[e.type];
    return size > 4 ? size + (size & 1) : 0;
  });
  const start = tableEnd + extra.reduce((a, b) => a + b, 0);
  const head = Buffer.alloc(start);
  head.write('II*\0', 0, 'latin1');
  head.writeUInt32LE(8, 4);
  head.writeUInt16LE(entries.length, 8);
  let spare = tableEnd;
  entries.forEach((entry, k) => {
    const at = 10 + 12 * k;
    head.writeUInt16LE(entry.tag, at);
    head.writeUInt16LE(entry.type, at + 2);
    head.writeUInt32LE(entry.values.length, at + 4);
    let to = at + 8;
    if (extra[k]) {
      head.writeUInt32LE(spare, to);
      to = spare;
      spare += extra[k];
    }
    if (Buffer.isBuffer(entry.values)) entry.values.copy(head, to);
    else
      for (const value of entry.tag === 273 ? [start] : entry.values) {
        if (entry.type === 3) head.writeUInt16LE(value, to);
        else head.writeUInt32LE(value, to);
        to += sizes[entry.type];
      }
  });
  return Buffer.concat([head, Buffer.from(data.buffer, data.byteOffset, data.byteLength)]);
}
