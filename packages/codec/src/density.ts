import { crc32 } from 'node:zlib';
import type { FlatFormat } from '@tersum/document';

/** Writes the density into an encoded PNG (pHYs) or JPEG (JFIF) at the container level; other formats stay as they are. */
export function withDensity(file: Buffer, format: FlatFormat, ppi: number): Buffer {
  if (format === 'png') return intoPng(file, ppi);
  if (format === 'jpeg') return intoJpeg(file, ppi);
  return file;
}

/** pHYs chunk right after IHDR (PNG third edition, 11.3.4.3): pixels a metre. */
function intoPng(file: Buffer, ppi: number): Buffer {
  const chunk = Buffer.alloc(21);
  chunk.writeUInt32BE(9, 0);
  chunk.write('pHYs', 4, 'latin1');
  chunk.writeUInt32BE(Math.round(ppi / 0.0254), 8);
  chunk.writeUInt32BE(Math.round(ppi / 0.0254), 12);
  chunk.writeUInt8(1, 16);
  chunk.writeUInt32BE(crc32(chunk.subarray(4, 17)), 17);
  const old = file.indexOf('pHYs', 8, 'latin1');
  const first = file.indexOf('IDAT', 8, 'latin1');
  const rest =
    old > 0 && old < first
      ? Buffer.concat([file.subarray(33, old - 4), file.subarray(old + 17)])
      : file.subarray(33);
  return Buffer.concat([file.subarray(0, 33), chunk, rest]);
}

/** Density fields of the JFIF header (ITU-T T.871, 10.1), which is put in when it is missing. */
function intoJpeg(file: Buffer, ppi: number): Buffer {
  const dots = Math.min(65535, Math.round(ppi));
  if (file.toString('latin1', 6, 11) === 'JFIF\0') {
    const out = Buffer.from(file);
    out.writeUInt8(1, 13);
    out.writeUInt16BE(dots, 14);
    out.writeUInt16BE(dots, 16);
    return out;
  }
  const head = Buffer.from([
    0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 1, 0, 0, 0, 0, 0, 0,
  ]);
  head.writeUInt16BE(dots, 12);
  head.writeUInt16BE(dots, 14);
  return Buffer.concat([file.subarray(0, 2), head, file.subarray(2)]);
}
