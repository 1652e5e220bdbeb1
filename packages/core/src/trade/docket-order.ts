import type { Finding } from '../survey/finding.js';
import type { FindingAdvice } from './finding-advice.js';
import { adviseFinding } from './finding-advice.js';

/** How near a speck lies to a line to come before it, px. */
const BESIDE = 6;

/** Advice for all findings of a picture, in their order. */
export function adviseAll(
  findings: readonly Finding[],
  frame: { readonly width: number; readonly height: number },
): FindingAdvice[] {
  const lines = new Uint8Array(((frame.width >> 2) + 1) * ((frame.height >> 2) + 1));
  const w = (frame.width >> 2) + 1;
  for (const { kind, pixels } of findings)
    if (kind === 'lines' || kind === 'wires' || kind === 'creases')
      for (const p of pixels) lines[((p / frame.width) >> 2) * w + ((p % frame.width) >> 2)] = 1;
  return findings.map((finding) => {
    const { box, kind } = finding;
    let touches = false;
    if (kind === 'specks')
      for (
        let y = Math.max(0, box.y - BESIDE) >> 2;
        y <= Math.min(frame.height - 1, box.y + box.height + BESIDE) >> 2;
        y++
      )
        for (
          let x = Math.max(0, box.x - BESIDE) >> 2;
          x <= Math.min(frame.width - 1, box.x + box.width + BESIDE) >> 2;
          x++
        )
          if (lines[y * w + x]) touches = true;
    return adviseFinding(finding, touches);
  });
}
