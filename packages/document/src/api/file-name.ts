import type { ExportFormat } from './messages.js';

/** The rule new exports start with. */
export const DEFAULT_RULE = '{job}-{picture}-{date}';

const EXTENSIONS: Record<ExportFormat, string> = {
  png: 'png',
  tiff: 'tif',
  jpeg: 'jpg',
  webp: 'webp',
  ora: 'ora',
  zip: 'zip',
};

/**
 * The name a rule makes: {job}, {picture} and {date} are put in, and whatever a file system might refuse
 * becomes a hyphen. Never empty, at most 120 characters before the extension.
 * @param date the day, as year-month-day
 */
export function fileNameOf(
  rule: string,
  facts: { readonly job: string; readonly picture: string; readonly date: string },
  format: ExportFormat,
): string {
  const filled = rule
    .replaceAll('{job}', facts.job)
    .replaceAll('{picture}', facts.picture.replace(/\.[A-Za-z0-9]{2,5}$/, ''))
    .replaceAll('{date}', facts.date);
  const safe = filled
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}._-]+/gu, '-')
    .replace(/-{2,}/g, '-')
    .replace(/^[-.]+|[-.]+$/g, '')
    .slice(0, 120);
  return `${safe || 'picture'}.${EXTENSIONS[format]}`;
}
