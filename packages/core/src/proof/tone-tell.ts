import { ciede2000 } from '../colour/ciede2000.js';
import { medianOf } from '../raster/median.js';
import { sampleAt } from '../raster/plane.js';
import type { SiteWindow } from './site-window.js';

/** Distances from the border at which tone is read, px. */
const FROM = 1;
const TO = 3;
/** px along the border that hardly say anything new about each other. */
const ALIKE = 5;
/** Standard errors a step must be. */
const SURE = 3;

/**
 * Step of tone between a site and its surroundings: the median over the border of what lies just inside less what lies just
 * outside, so that edges and slopes that cross the border cancel.
 * @returns CIEDE2000; 0 when the step is no larger than chance
 */
export function toneStep({ lab, rim }: SiteWindow): number {
  if (rim.length < 12) return 0;
  const steps = lab.map((plane) =>
    rim.map(({ x, y, nx, ny }) => {
      let [inner, outer] = [0, 0];
      for (let t = FROM; t <= TO; t++) {
        inner += sampleAt(plane, x - t * nx, y - t * ny);
        outer += sampleAt(plane, x + t * nx, y + t * ny);
      }
      return (inner - outer) / (TO - FROM + 1);
    }),
  );
  const middles = steps.map(medianOf);
  const count = Math.max(2, rim.length / ALIKE);
  const sure = steps.some((list, c) => {
    const spread = 1.4826 * medianOf(list.map((v) => Math.abs(v - middles[c]!)));
    return Math.abs(middles[c]!) > (SURE * 1.25 * Math.max(spread, 0.3)) / Math.sqrt(count);
  });
  if (!sure) return 0;
  const around = lab.map((plane) =>
    medianOf(rim.map(({ x, y, nx, ny }) => sampleAt(plane, x + 3 * nx, y + 3 * ny))),
  ) as [number, number, number];
  const [L, a, b] = around;
  return ciede2000({ L, a, b }, { L: L + middles[0]!, a: a + middles[1]!, b: b + middles[2]! });
}
