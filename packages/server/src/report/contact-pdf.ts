import { PDFDocument } from 'pdf-lib';
import { fontsFor, MARGIN, Sheet, WIDTH } from './page.js';

/** A picture of a contact sheet. */
export interface ContactPicture {
  readonly name: string;
  readonly facts: string;
  readonly before: Uint8Array;
  readonly after: Uint8Array;
}

/** Every picture of a job as received and as delivered, pair by pair. */
export async function contactPdf(
  title: string,
  client: string,
  pictures: readonly ContactPicture[],
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(`Contact sheet: ${title}`);
  const sheet = new Sheet(pdf, await fontsFor(pdf), title);
  sheet.text(title, { size: 18, font: 'bold' });
  if (client) sheet.text(`For ${client}`, { soft: true });
  sheet.y += 6;
  sheet.rule();
  const half = (WIDTH - 2 * MARGIN - 12) / 2;
  for (const picture of pictures) {
    sheet.need(215);
    const top = sheet.y + 4;
    const [before, after] = await Promise.all([
      pdf.embedJpg(picture.before),
      pdf.embedJpg(picture.after),
    ]);
    const one = sheet.picture(before, MARGIN, top, half, 170);
    const two = sheet.picture(after, MARGIN + half + 12, top, half, 170);
    sheet.y = top + Math.max(one.height, two.height) + 4;
    sheet.put(picture.name, MARGIN, sheet.y, { size: 9, font: 'bold' });
    sheet.put(picture.facts, MARGIN + half + 12, sheet.y, { size: 8, soft: true });
    sheet.y += 20;
  }
  return pdf.save();
}
