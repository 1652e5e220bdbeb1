import sharp from 'sharp';
import type { ContactPicture } from './contact-pdf.js';
import { escaped } from './report-html.js';

/** px */
const [WIDTH, MARGIN, GAP, HEAD, ROW] = [1360, 40, 16, 110, 470];
const PICTURE = { width: (WIDTH - 2 * MARGIN - GAP) / 2, height: ROW - 60 };
const [PAPER, INK, SOFT] = ['#f6f3ec', '#1f2326', '#565c57'];

/** A contact sheet as one picture: every picture of a job as received and as delivered, pair by pair. */
export async function contactPng(
  title: string,
  client: string,
  pictures: readonly ContactPicture[],
): Promise<Buffer> {
  const height = HEAD + pictures.length * ROW + MARGIN;
  const text = (x: number, y: number, size: number, words: string, colour = INK): string =>
    `<text x="${x}" y="${y}" font-size="${size}" fill="${colour}">${escaped(words)}</text>`;
  const right = MARGIN + PICTURE.width + GAP;
  const words = pictures.map((picture, k) => {
    const y = HEAD + k * ROW + PICTURE.height + 24;
    return text(MARGIN, y, 17, picture.name) + text(right, y, 15, picture.facts, SOFT);
  });
  const sheet = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" font-family="Liberation Sans, DejaVu Sans, sans-serif">${text(MARGIN, 56, 30, title)}${text(MARGIN, 84, 16, client ? `For ${client}` : '', SOFT)}${words.join('')}</svg>`;
  const laid = await Promise.all(
    pictures.flatMap(({ before, after }, k) =>
      [before, after].map(async (file, side) => ({
        input: await sharp(file)
          .resize(PICTURE.width, PICTURE.height, {
            fit: 'contain',
            position: 'left top',
            background: PAPER,
          })
          .png()
          .toBuffer(),
        left: side ? right : MARGIN,
        top: HEAD + k * ROW,
      })),
    ),
  );
  return sharp({ create: { width: WIDTH, height, channels: 3, background: PAPER } })
    .composite([...laid, { input: Buffer.from(sheet), left: 0, top: 0 }])
    .png()
    .toBuffer();
}
