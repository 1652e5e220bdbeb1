import type { Locator, Page } from '@playwright/test';
import { expect } from '@playwright/test';

/** Adds a picture file to a job of the board; the bench opens on it. */
export async function addPicture(
  page: Page,
  url: string,
  job: string,
  file: string,
): Promise<void> {
  await page.goto(url);
  const button = page
    .getByRole('article', { name: job })
    .getByRole('button', { name: 'Add picture' });
  // A press may be lost while the board is still coming in: it is made again.
  await expect(async () => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser', { timeout: 5000 }),
      button.click(),
    ]);
    await chooser.setFiles(file);
  }).toPass();
}

/** The bench as somebody sees it who goes by its labels. */
export class BenchPage {
  readonly table: Locator;
  private readonly upToDate: Locator;

  constructor(
    readonly page: Page,
    private readonly size: { readonly width: number; readonly height: number },
  ) {
    this.table = page.getByRole('application', { name: 'Table: the picture' });
    this.upToDate = page.getByText('Up to date');
  }

  choose(name: string): Promise<void> {
    return this.page.getByRole('radio', { name, exact: true }).click();
  }

  press(name: string | RegExp): Promise<void> {
    return this.page.getByRole('button', { name }).first().click();
  }

  /** Where a picture point is on the page while the whole picture is fitted on the table. */
  async at(x: number, y: number): Promise<{ x: number; y: number }> {
    const box = (await this.table.boundingBox())!;
    const zoom = Math.min((box.width - 32) / this.size.width, (box.height - 32) / this.size.height);
    return {
      x: box.x + box.width / 2 + (x - (this.size.width - 1) / 2) * zoom,
      y: box.y + box.height / 2 + (y - (this.size.height - 1) / 2) * zoom,
    };
  }

  async click(x: number, y: number): Promise<void> {
    const at = await this.at(x, y);
    await this.page.mouse.click(at.x, at.y);
  }

  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    const a = await this.at(...from);
    const b = await this.at(...to);
    await this.page.mouse.move(a.x, a.y);
    await this.page.mouse.down();
    await this.page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 4 });
    await this.page.mouse.move(b.x, b.y, { steps: 4 });
    await this.page.mouse.up();
  }

  /** Waits until what is shown is what the records say. */
  async settled(repairs?: number): Promise<void> {
    if (repairs !== undefined)
      await expect(
        this.page.getByLabel('Docket', { exact: true }).getByText(`${repairs} repair`),
      ).toBeVisible({ timeout: 240_000 });
    // What was just done may take a moment to be told of.
    else await this.upToDate.waitFor({ state: 'hidden', timeout: 400 }).catch(() => undefined);
    await expect(this.upToDate).toBeVisible({ timeout: 240_000 });
  }

  /** How many repairs the docket tells of. */
  async repairs(): Promise<number> {
    const told = this.page.getByLabel('Docket', { exact: true }).getByText(/^\d+ repairs?$/);
    return parseInt((await told.textContent()) ?? '', 10);
  }

  row(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name });
  }

  /** Exports through the window. @returns where the file lies */
  async saved(format: Parameters<BenchPage['export']>[0], to: string): Promise<string> {
    await this.export(format, to);
    return to;
  }

  /** Exports through the window and gives back the file's name. */
  async export(
    format: 'PNG' | 'TIFF' | 'JPEG' | 'WebP' | 'OpenRaster' | 'Job',
    to: string,
  ): Promise<string> {
    await this.press('Export');
    await this.choose(format);
    await this.press('Make file');
    const coming = this.page.waitForEvent('download');
    await this.page.getByRole('link', { name: 'Save file' }).click({ timeout: 240_000 });
    const download = await coming;
    await download.saveAs(to);
    await this.press('Close');
    return download.suggestedFilename();
  }
}
