import { crc32 } from 'node:zlib';
import type { FlatFormat } from '@tersum/document';

const PREFIX = Buffer.from('Exif\0\0', 'latin1');
const ORIENTATION = 0x0112;
const X_RESOLUTION = 0x011a;
const Y_RESOLUTION = 0x011b;
const RESOLUTION_UNIT = 0x0128;
const INCH = 2;

/**
 * Puts an EXIF block (a little TIFF structure, CIPA DC-008) into an encoded file at the container level, so
 * that no pixel is touched. Orientation is set to upright, since the pixels were turned when they were read.
 */
export function withExif(
  file: Buffer,
  format: FlatFormat,
  exif: Buffer,
  ppi: number | null,
): Buffer {
  const block = corrected(exif.subarray(0, 6).equals(PREFIX) ? exif.subarray(6) : exif, ppi);
  if (!block) return file;
  switch (format) {
    case 'png':
      return intoPng(file, block);
    case 'jpeg':
      return intoJpeg(file, block);
    case 'webp':
      return intoWebp(file, block);
    case 'tiff':
      return intoTiff(file, block);
  }
}

interface Entry {
  tag: number;
  type: number;
  count: number;
  bytes: Buffer;
}

const SIZE_OF_TYPE = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
const EXIF_POINTER = 0x8769;
const GPS_POINTER = 0x8825;

/** A copy that says upright and this density, or null when the block cannot be read. */
function corrected(block: Buffer, ppi: number | null): Buffer | null {
  const copy = Buffer.from(block);
  try {
    const order = orderOf(copy);
    const start = order.u32(4);
    const count = order.u16(start);
    for (let k = 0; k < count; k++) {
      const at = start + 2 + 12 * k;
      const tag = order.u16(at);
      if (tag === ORIENTATION) order.write16(1, at + 8);
      if (!ppi) continue;
      if (tag === RESOLUTION_UNIT) order.write16(INCH, at + 8);
      if (tag === X_RESOLUTION || tag === Y_RESOLUTION) {
        order.write32(Math.round(ppi * 100), order.u32(at + 8));
        order.write32(100, order.u32(at + 8) + 4);
      }
    }
    return copy;
  } catch {
    return null;
  }
}

function orderOf(block: Buffer) {
  const little = block.toString('latin1', 0, 2) === 'II';
  return {
    little,
    u16: (at: number) => (little ? block.readUInt16LE(at) : block.readUInt16BE(at)),
    u32: (at: number) => (little ? block.readUInt32LE(at) : block.readUInt32BE(at)),
    write32: (v: number, at: number) =>
      little ? block.writeUInt32LE(v, at) : block.writeUInt32BE(v, at),
    write16: (v: number, at: number) =>
      little ? block.writeUInt16LE(v, at) : block.writeUInt16BE(v, at),
  };
}

/** eXIf chunk right after IHDR (PNG third edition, 11.3.4.6). */
function intoPng(file: Buffer, block: Buffer): Buffer {
  const chunk = Buffer.alloc(12 + block.length);
  chunk.writeUInt32BE(block.length, 0);
  chunk.write('eXIf', 4, 'latin1');
  block.copy(chunk, 8);
  chunk.writeUInt32BE(crc32(chunk.subarray(4, 8 + block.length)), 8 + block.length);
  return Buffer.concat([file.subarray(0, 33), chunk, file.subarray(33)]);
}

/** APP1 segment after the first APP0. */
function intoJpeg(file: Buffer, block: Buffer): Buffer {
  const length = 2 + PREFIX.length + block.length;
  if (length > 65535) return file;
  const head = Buffer.alloc(4);
  head.writeUInt16BE(0xffe1, 0);
  head.writeUInt16BE(length, 2);
  const after = file.readUInt16BE(2) === 0xffe0 ? 4 + file.readUInt16BE(4) : 2;
  return Buffer.concat([file.subarray(0, after), head, PREFIX, block, file.subarray(after)]);
}

/** EXIF chunk at the end, announced in VP8X (WebP container specification). */
function intoWebp(file: Buffer, block: Buffer): Buffer {
  const padded = block.length & 1 ? Buffer.concat([block, Buffer.alloc(1)]) : block;
  const head = Buffer.alloc(8);
  head.write('EXIF', 0, 'latin1');
  head.writeUInt32LE(block.length, 4);
  const body = file.subarray(12);
  let out: Buffer;
  if (body.toString('latin1', 0, 4) === 'VP8X') {
    out = Buffer.concat([file, head, padded]);
    out.writeUInt8(out.readUInt8(20) | 0x08, 20);
  } else {
    const size = webpSize(body);
    if (!size) return file;
    const extended = Buffer.alloc(18);
    extended.write('VP8X', 0, 'latin1');
    extended.writeUInt32LE(10, 4);
    extended.writeUInt8(0x08, 8);
    extended.writeUIntLE(size.width - 1, 12, 3);
    extended.writeUIntLE(size.height - 1, 15, 3);
    out = Buffer.concat([file.subarray(0, 12), extended, body, head, padded]);
  }
  out.writeUInt32LE(out.length - 8, 4);
  return out;
}

/** Size in a lossy VP8 key frame header (RFC 6386, 9.1). */
function webpSize(body: Buffer): { width: number; height: number } | null {
  if (body.toString('latin1', 0, 4) !== 'VP8 ') return null;
  return { width: body.readUInt16LE(14) & 0x3fff, height: body.readUInt16LE(16) & 0x3fff };
}

/** Which of the block's main tags describe the shot rather than the storage of pixels. */
const ABOUT_THE_SHOT = new Set([0x010e, 0x010f, 0x0110, 0x0131, 0x0132, 0x013b, 0x8298]);

/**
 * Rewrites the first directory of a little-endian TIFF with the shot's tags and its EXIF and GPS directories
 * moved over, at the end of the file.
 */
function intoTiff(file: Buffer, block: Buffer): Buffer {
  if (file.toString('latin1', 0, 2) !== 'II') return file;
  const own = readDirectory(file, file.readUInt32LE(4));
  const main = readDirectory(block, orderOf(block).u32(4));
  const have = new Set(own.map((e) => e.tag));
  const added = main.filter((e) => ABOUT_THE_SHOT.has(e.tag) && !have.has(e.tag));
  const parts: Buffer[] = [file.length & 1 ? Buffer.concat([file, Buffer.alloc(1)]) : file];
  let end = parts[0]!.length;
  for (const tag of [EXIF_POINTER, GPS_POINTER]) {
    const pointer = main.find((e) => e.tag === tag);
    if (!pointer) continue;
    const sub = readDirectory(block, pointer.bytes.readUInt32LE(0)).filter((e) => e.tag !== 0xa005);
    const written = writeDirectory(sub, end);
    const at = Buffer.alloc(4);
    at.writeUInt32LE(end);
    added.push({ tag, type: 4, count: 1, bytes: at });
    parts.push(written);
    end += written.length;
  }
  const directory = writeDirectory(
    [...own, ...added].sort((a, b) => a.tag - b.tag),
    end,
  );
  const out = Buffer.concat([...parts, directory]);
  out.writeUInt32LE(end, 4);
  return out;
}

/** Entries of a directory with their values in little-endian order. */
function readDirectory(file: Buffer, start: number): Entry[] {
  const order = orderOf(file);
  const entries: Entry[] = [];
  const count = order.u16(start);
  for (let k = 0; k < count; k++) {
    const at = start + 2 + 12 * k;
    const type = order.u16(at + 2);
    const n = order.u32(at + 4);
    const unit = SIZE_OF_TYPE[type] ?? 0;
    const size = unit * n;
    const from = size > 4 ? order.u32(at + 8) : at + 8;
    if (!unit || from + size > file.length) continue;
    const bytes = Buffer.from(file.subarray(from, from + size));
    // Rationals are pairs of 32-bit words; plain bytes, text and undefined stay as they are.
    const word = type === 5 || type === 10 ? 4 : unit;
    if (!order.little && word === 2) bytes.swap16();
    if (!order.little && word === 4) bytes.swap32();
    if (!order.little && word === 8) bytes.swap64();
    entries.push({ tag: order.u16(at), type, count: n, bytes });
  }
  return entries;
}

function writeDirectory(entries: Entry[], start: number): Buffer {
  const table = Buffer.alloc(2 + entries.length * 12 + 4);
  table.writeUInt16LE(entries.length, 0);
  const extra: Buffer[] = [];
  let spare = start + table.length;
  entries.forEach((entry, k) => {
    const at = 2 + 12 * k;
    table.writeUInt16LE(entry.tag, at);
    table.writeUInt16LE(entry.type, at + 2);
    table.writeUInt32LE(entry.count, at + 4);
    if (entry.bytes.length <= 4) {
      entry.bytes.copy(table, at + 8);
      return;
    }
    table.writeUInt32LE(spare, at + 8);
    const padded =
      entry.bytes.length & 1 ? Buffer.concat([entry.bytes, Buffer.alloc(1)]) : entry.bytes;
    extra.push(padded);
    spare += padded.length;
  });
  return Buffer.concat([table, ...extra]);
}
