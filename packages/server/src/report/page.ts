import type { PDFDocument, PDFFont, PDFImage, PDFPage } from 'pdf-lib';
import { rgb, StandardFonts } from 'pdf-lib';

/** A4, points. */
export const [WIDTH, HEIGHT] = [595.28, 841.89];
export const MARGIN = 48;
const INK = rgb(0.12, 0.14, 0.15);
const SOFT = rgb(0.34, 0.36, 0.34);
const LINE = rgb(0.83, 0.82, 0.78);

export interface Fonts {
  readonly plain: PDFFont;
  readonly bold: PDFFont;
  readonly figures: PDFFont;
}

export async function fontsFor(pdf: PDFDocument): Promise<Fonts> {
  return {
    plain: await pdf.embedFont(StandardFonts.Helvetica),
    bold: await pdf.embedFont(StandardFonts.HelveticaBold),
    figures: await pdf.embedFont(StandardFonts.Courier),
  };
}

interface TextLook {
  readonly font?: keyof Fonts;
  readonly size?: number;
  readonly soft?: boolean;
}

/** Pages that are written from top to bottom; a new one begins where there is no room. */
export class Sheet {
  page: PDFPage;
  /** How far down the page is written, points from the top. */
  y = MARGIN;

  constructor(
    private readonly pdf: PDFDocument,
    private readonly fonts: Fonts,
    private readonly foot: string,
  ) {
    this.page = this.begin();
  }

  private begin(): PDFPage {
    const page = this.pdf.addPage([WIDTH, HEIGHT]);
    this.page = page;
    this.y = MARGIN;
    this.put(this.foot, MARGIN, HEIGHT - 28, { size: 7.5, soft: true });
    const number = `${this.pdf.getPageCount()}`;
    this.put(number, WIDTH - MARGIN - 10, HEIGHT - 28, { size: 7.5, soft: true });
    return page;
  }

  /** Makes sure that `height` points are left. */
  need(height: number): void {
    if (this.y + height > HEIGHT - MARGIN - 10) this.page = this.begin();
  }

  put(
    text: string,
    x: number,
    top: number,
    { font = 'plain', size = 9.5, soft = false }: TextLook = {},
  ): void {
    const used = this.fonts[font];
    this.page.drawText(writable(text, used), {
      x,
      y: HEIGHT - top - size,
      size,
      font: used,
      color: soft ? SOFT : INK,
    });
  }

  /** Text in lines no wider than `width`, below what stands. */
  text(text: string, look: TextLook = {}, width = WIDTH - 2 * MARGIN, x = MARGIN): void {
    const size = look.size ?? 9.5;
    for (const line of this.lines(text, look, width)) {
      this.need(size * 1.45);
      this.put(line, x, this.y, look);
      this.y += size * 1.45;
    }
  }

  lines(text: string, { font = 'plain', size = 9.5 }: TextLook, width: number): string[] {
    const used = this.fonts[font];
    const out: string[] = [];
    let line = '';
    for (const word of writable(text, used).split(/\s+/)) {
      const longer = line ? `${line} ${word}` : word;
      if (line && used.widthOfTextAtSize(longer, size) > width) {
        out.push(line);
        line = word;
      } else line = longer;
    }
    if (line) out.push(line);
    return out;
  }

  rule(): void {
    this.page.drawLine({
      start: { x: MARGIN, y: HEIGHT - this.y },
      end: { x: WIDTH - MARGIN, y: HEIGHT - this.y },
      thickness: 0.6,
      color: LINE,
    });
    this.y += 8;
  }

  /** A picture that fits into a box, its middle in the box's. @returns where it came to stand, from the page's top left */
  picture(image: PDFImage, x: number, top: number, width: number, height: number) {
    const by = Math.min(width / image.width, height / image.height);
    const [w, h] = [image.width * by, image.height * by];
    const left = x + (width - w) / 2;
    this.page.drawImage(image, { x: left, y: HEIGHT - top - h, width: w, height: h });
    return { left, top, width: w, height: h };
  }

  /** A number in a ring, for the key picture. */
  mark(number: string, x: number, top: number): void {
    this.page.drawCircle({
      x,
      y: HEIGHT - top,
      size: 6.5,
      color: rgb(1, 1, 1),
      borderColor: INK,
      borderWidth: 0.8,
    });
    const size = number.length > 2 ? 5 : 6.5;
    const wide = this.fonts.bold.widthOfTextAtSize(number, size);
    this.page.drawText(number, {
      x: x - wide / 2,
      y: HEIGHT - top - size * 0.36,
      size,
      font: this.fonts.bold,
      color: INK,
    });
  }
}

/** Text with what the font cannot write taken out. */
function writable(text: string, font: PDFFont): string {
  const known = new Set(font.getCharacterSet());
  return [...text.replace(/[\n\t]/g, ' ')]
    .map((c) => (known.has(c.codePointAt(0)!) ? c : '?'))
    .join('');
}
