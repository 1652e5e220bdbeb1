import type { Picture } from '@tersum/document';

/** The format a file's first bytes show, whatever its name says; null when it is none we read. */
export function identify(head: Uint8Array): Picture['format'] | null {
  const at = (offset: number, text: string): boolean =>
    [...text].every((ch, i) => head[offset + i] === ch.charCodeAt(0));
  if (at(0, '\x89PNG\r\n\x1a\n')) return 'png';
  if (head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff) return 'jpeg';
  if (at(0, 'II*\0') || at(0, 'MM\0*') || at(0, 'II+\0') || at(0, 'MM\0+')) return 'tiff';
  if (at(0, 'RIFF') && at(8, 'WEBP')) return 'webp';
  return at(0, 'BM') ? 'bmp' : null;
}
