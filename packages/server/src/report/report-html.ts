import type { Report } from '@tersum/document';
import {
  POLICY_WORDS,
  REPORT_NOTES,
  percent,
  proofLine,
  sizeLine,
  toneLine,
} from './report-words.js';
import type { ReportPictures } from './report-pdf.js';

/** Text as it may stand in a page. */
export function escaped(text: string): string {
  return text.replace(
    /[&<>"']/g,
    (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!,
  );
}

const STYLE = `
  body { font: 15px/1.5 "Liberation Sans", Helvetica, Arial, sans-serif; color: #1f2326; background: #fff; max-width: 960px; margin: 40px auto; padding: 0 24px; }
  h1 { font-size: 28px; margin: 4px 0; } h2 { font-size: 18px; margin: 32px 0 8px; }
  .soft, caption, th { color: #565c57; font-weight: normal; } .label { font-size: 12px; font-weight: bold; color: #565c57; }
  .pair { display: grid; grid-template-columns: 1fr 1fr; gap: 16px; margin: 24px 0; } figure { margin: 0; position: relative; } img { width: 100%; display: block; }
  figcaption { font-size: 13px; color: #565c57; } table { border-collapse: collapse; width: 100%; margin-bottom: 20px; } caption { text-align: left; font-weight: bold; color: #1f2326; padding: 8px 0; }
  th, td { text-align: left; padding: 4px 10px 4px 0; border-bottom: 1px solid #d9d3c6; font-size: 13px; vertical-align: top; } td.n { font-family: monospace; white-space: nowrap; }
  .mark { position: absolute; transform: translate(-50%, -50%); min-width: 22px; height: 22px; border-radius: 11px; border: 1px solid #1f2326; background: #fff; font-size: 11px; line-height: 20px; text-align: center; }
  code { font-size: 12px; word-break: break-all; }
`;

/** The treatment report as one page: before and after, the numbered repairs, what was done, and a statement. */
export function reportHtml(report: Report, pictures: ReportPictures): string {
  const { job, picture, made, shares, untouched, layers, statement } = report;
  const image = (file: Uint8Array, alt: string): string =>
    `<img alt="${alt}" src="data:image/jpeg;base64,${Buffer.from(file).toString('base64')}">`;
  const marks = layers.flatMap((l) =>
    l.repairs.map(({ number, box }) => {
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      return `<span class="mark" style="left:${(100 * x) / picture.width}%;top:${(100 * y) / picture.height}%">${number}</span>`;
    }),
  );
  const rows = (
    [
      ['Cleaned from what stands beside it', shares.cleaned],
      ['Rebuilt from elsewhere in the picture', shares.rebuilt],
      ['Invented', shares.invented],
      ['Untouched', untouched],
    ] as const
  ).map(([name, share]) => `<tr><td>${name}</td><td class="n">${percent(share ?? 0)}</td></tr>`);
  const tables = layers.map(
    (layer) =>
      `<table><caption>Layer: ${escaped(layer.name)}</caption><thead><tr><th>No.</th><th>Method</th><th>Size</th><th>Strength</th><th>Manner</th><th>Reason</th></tr></thead><tbody>${layer.repairs
        .map(
          (r) =>
            `<tr><td class="n">${r.number}</td><td>${r.method}</td><td class="n">${sizeLine(r)}</td><td class="n">${Math.round(100 * r.strength)} %</td><td>${r.manner}</td><td>${escaped(r.reason || '-')}</td></tr>`,
        )
        .join('')}</tbody></table>`,
  );
  const files = report.delivered.map(
    ({ fileName, at, bytes, sha256 }) =>
      `<tr><td>${escaped(fileName)}</td><td class="n">${at.slice(0, 10)}</td><td class="n">${bytes}</td><td><code>${sha256}</code></td></tr>`,
  );
  const facts = [
    picture.name,
    `${picture.width} x ${picture.height} px, ${picture.bits} bits`,
    job.client ? `for ${job.client}` : '',
    made.slice(0, 10),
  ].filter(Boolean);
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Treatment report: ${escaped(picture.name)}</title><style>${STYLE}</style></head>
<body>
<p class="label">Treatment report</p><h1>${escaped(job.title)}</h1><p class="soft">${escaped(facts.join(' · '))}</p>
<div class="pair"><figure>${image(pictures.before, 'As received')}<figcaption>As received</figcaption></figure><figure>${image(pictures.after, 'As delivered')}<figcaption>As delivered</figcaption></figure></div>
<h2>What was done</h2><table><tbody>${rows.join('')}</tbody></table>
<p>${escaped(toneLine(report))}</p><p>${escaped(proofLine(report))}</p><p>${escaped(POLICY_WORDS[report.policy])}</p><p><strong>${escaped(statement)}</strong></p>
<h2>Where it was done</h2><figure>${image(pictures.key, 'Key picture')}${marks.join('')}</figure>
${tables.join('\n')}
${report.delivered.length ? `<h2>Files made</h2><table><thead><tr><th>File</th><th>Day</th><th>Bytes</th><th>SHA-256</th></tr></thead><tbody>${files.join('')}</tbody></table>` : ''}
<h2>Notes</h2>${REPORT_NOTES.map((note) => `<p class="soft">${escaped(note)}</p>`).join('')}
<p class="soft">SHA-256 of the file as received:<br><code>${picture.original}</code></p>
</body></html>
`;
}
