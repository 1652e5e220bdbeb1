import type { Report } from '@tersum/document';
import { PDFDocument } from 'pdf-lib';
import { fontsFor, MARGIN, Sheet, WIDTH } from './page.js';
import {
  percent,
  POLICY_WORDS,
  REPORT_NOTES,
  proofLine,
  sizeLine,
  toneLine,
} from './report-words.js';

/** JPEG files of a picture's states. */
export interface ReportPictures {
  readonly before: Uint8Array;
  readonly after: Uint8Array;
  /** As repaired, without tone and frame, so that places are the records'. */
  readonly key: Uint8Array;
}

/** Columns of the table of repairs, points from the margin. */
const COLUMNS = [0, 26, 84, 172, 236, 286] as const;

/** The treatment report as a PDF: before and after, the numbered repairs, what was done, and a statement. */
export async function reportPdf(report: Report, pictures: ReportPictures): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(`Treatment report: ${report.picture.name}`);
  pdf.setCreationDate(new Date(report.made));
  const fonts = await fontsFor(pdf);
  const [before, after, key] = await Promise.all(
    [pictures.before, pictures.after, pictures.key].map((file) => pdf.embedJpg(file)),
  );
  const sheet = new Sheet(pdf, fonts, `${report.job.title} · ${report.picture.name}`);
  heading(sheet, report);
  const half = (WIDTH - 2 * MARGIN - 14) / 2;
  const top = sheet.y;
  const one = sheet.picture(before!, MARGIN, top, half, 250);
  const two = sheet.picture(after!, MARGIN + half + 14, top, half, 250);
  sheet.y = top + Math.max(one.height, two.height) + 5;
  sheet.put('As received', MARGIN, sheet.y, { size: 8, soft: true });
  sheet.put('As delivered', MARGIN + half + 14, sheet.y, { size: 8, soft: true });
  sheet.y += 24;
  summary(sheet, report);

  sheet.need(1000);
  title(sheet, 'Where it was done');
  const place = sheet.picture(key!, MARGIN, sheet.y, WIDTH - 2 * MARGIN, 330);
  const repairs = report.layers.flatMap((l) => l.repairs);
  for (const { number, box } of repairs)
    sheet.mark(
      String(number),
      place.left + ((box.x + box.width / 2) / report.picture.width) * place.width,
      place.top + ((box.y + box.height / 2) / report.picture.height) * place.height,
    );
  sheet.y += place.height + 18;
  table(sheet, report);
  files(sheet, report);
  closing(sheet, report);
  return pdf.save();
}

function heading(sheet: Sheet, { job, picture, made }: Report): void {
  sheet.put('TREATMENT REPORT', MARGIN, sheet.y, { size: 8, soft: true, font: 'bold' });
  sheet.y += 16;
  sheet.text(job.title, { size: 20, font: 'bold' });
  const size = picture.ppi
    ? `, ${((picture.width / picture.ppi) * 25.4).toFixed(1)} x ${((picture.height / picture.ppi) * 25.4).toFixed(1)} mm at ${Math.round(picture.ppi)} ppi`
    : '';
  sheet.text(
    `${picture.name} · ${picture.width} x ${picture.height} px, ${picture.bits} bits${size}`,
    { soft: true },
  );
  sheet.text(`${job.client ? `For ${job.client} · ` : ''}${made.slice(0, 10)}`, { soft: true });
  sheet.y += 8;
  sheet.rule();
  sheet.y += 4;
}

function title(sheet: Sheet, text: string): void {
  sheet.need(40);
  sheet.text(text, { size: 12, font: 'bold' });
  sheet.y += 4;
}

function summary(sheet: Sheet, report: Report): void {
  const { shares, untouched, statement } = report;
  title(sheet, 'What was done');
  const rows: [string, string][] = [
    ['Cleaned from what stands beside it', percent(shares.cleaned!)],
    ['Rebuilt from elsewhere in the picture', percent(shares.rebuilt!)],
    ['Invented', percent(shares.invented!)],
    ['Untouched', percent(untouched)],
  ];
  for (const [name, value] of rows) {
    sheet.put(name, MARGIN, sheet.y);
    sheet.put(value, MARGIN + 210, sheet.y, { font: 'figures' });
    sheet.y += 14;
  }
  sheet.y += 4;
  sheet.text(toneLine(report));
  sheet.text(proofLine(report));
  sheet.text(POLICY_WORDS[report.policy]);
  sheet.y += 10;
  sheet.text(statement, { font: 'bold' });
}

function table(sheet: Sheet, report: Report): void {
  const at = (column: number): number => MARGIN + COLUMNS[column]!;
  for (const layer of report.layers) {
    sheet.need(60);
    sheet.text(`Layer: ${layer.name}`, { font: 'bold' });
    ['No.', 'Method', 'Size', 'Strength', '', 'Reason'].forEach((name, k) =>
      sheet.put(name, at(k), sheet.y, { size: 8, soft: true }),
    );
    sheet.y += 12;
    sheet.rule();
    for (const repair of layer.repairs) {
      const reason = sheet.lines(repair.reason || '-', { size: 8.5 }, WIDTH - MARGIN - at(5));
      sheet.need(12 * reason.length + 4);
      sheet.put(String(repair.number), at(0), sheet.y, { font: 'figures', size: 8.5 });
      sheet.put(repair.method, at(1), sheet.y, { size: 8.5 });
      sheet.put(sizeLine(repair), at(2), sheet.y, { font: 'figures', size: 8.5 });
      sheet.put(`${Math.round(100 * repair.strength)} %`, at(3), sheet.y, {
        font: 'figures',
        size: 8.5,
      });
      sheet.put(repair.manner, at(4), sheet.y, { size: 8.5 });
      for (const line of reason) {
        sheet.put(line, at(5), sheet.y, { size: 8.5 });
        sheet.y += 12;
      }
      sheet.y += 2;
    }
    sheet.y += 10;
  }
}

function files(sheet: Sheet, { delivered }: Report): void {
  if (!delivered.length) return;
  title(sheet, 'Files made');
  for (const { fileName, at, bytes, sha256 } of delivered) {
    sheet.need(34);
    sheet.text(`${fileName} · ${at.slice(0, 10)} · ${bytes} bytes`, { size: 9 });
    sheet.text(sha256, { font: 'figures', size: 7.5, soft: true });
    sheet.y += 4;
  }
  sheet.y += 8;
}

function closing(sheet: Sheet, { picture }: Report): void {
  title(sheet, 'Notes');
  for (const note of REPORT_NOTES) sheet.text(note, { soft: true, size: 8.5 });
  sheet.y += 6;
  sheet.text('SHA-256 of the file as received:', { size: 8, soft: true });
  sheet.text(picture.original, { font: 'figures', size: 8 });
  sheet.need(60);
  sheet.y += 34;
  sheet.put('Date and signature', MARGIN, sheet.y + 4, { size: 8, soft: true });
  sheet.rule();
}
