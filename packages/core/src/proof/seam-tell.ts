import { weightedMedianOf } from '../raster/median.js';
import { sampleAt } from '../raster/plane.js';
import { calmFirst, middleOf, placesIn } from './middle.js';
import type { RimPoint, SiteWindow } from './site-window.js';

/** Lines beside the border whose steps are taken as usual, px outward. */
const BESIDE = [-6, -4.5, -3, 3, 4.5, 6];
const ALIKE = 3;
/** Standard errors a roughness must be, and a lean. */
const SURE = 4;
const SURE_LEAN = 3.5;
/** A step that leans one way all along the border shows from so many codes on, and from so many times those beside it. */
const LEAN = 1.2;
const MORE = 1.8;
/** Variance that no place is taken to be below, codes squared. */
const CALM = 4;

/** How much larger the steps across a site's border are than those beside it; 1 when they are alike or hardly larger. */
export function seamStep({ luma, rim, mask }: SiteWindow): number {
  if (rim.length < 12) return 1;
  const step = ({ x, y, nx, ny }: RimPoint, t: number): number =>
    sampleAt(luma, x + (t + 0.75) * nx, y + (t + 0.75) * ny) -
    sampleAt(luma, x + (t - 0.75) * nx, y + (t - 0.75) * ny);
  const here = rim.map((p) => step(p, 0));
  const beside = BESIDE.map((t) => rim.map((p) => step(p, t)));
  const size = (list: readonly number[]): number =>
    list.reduce((sum, v) => sum + Math.min(60, Math.abs(v)), 0) / list.length;
  const usual = beside.map(size).sort((a, b) => a - b);
  const level = Math.max(0.6, (usual[2]! + usual[3]!) / 2);
  const highest = usual.at(-1)!;
  const now = size(here);
  const spread = Math.sqrt(
    here.reduce((sum, v) => sum + (Math.min(60, Math.abs(v)) - now) ** 2, 0) / here.length,
  );
  const doubt = spread / Math.sqrt(Math.max(1, rim.length / ALIKE));
  const rough = now > highest && now - level > SURE * doubt ? now / level : 1;
  // A step that always leans the same way shows even where it is smaller than what stands beside it.
  const weights = calmFirst(luma, rim, CALM);
  const { value, doubt: unsure } = middleOf(here, weights, ALIKE, 0.3, placesIn(mask));
  const lean = Math.abs(value);
  const mostLean = Math.max(...beside.map((list) => Math.abs(weightedMedianOf(list, weights))));
  const leaning =
    lean > LEAN && lean > SURE_LEAN * unsure && lean > MORE * mostLean ? 1 + lean / level : 1;
  return Math.max(rough, leaning);
}
