// What a search comes to: twin of src/fill/plain/tell.ts.
import { at32 } from './memory';

/**
 * Shifts to the sources, and how well patches agree with theirs beside `reference`, for the pixels of a hole.
 * @param values of a patch
 */
export function tell(
  holes: usize,
  count: i32,
  sourceOf: usize,
  width: i32,
  number: usize,
  distance: usize,
  values: f64,
  reference: f64,
  left: i32,
  top: i32,
  wide: i32,
  dx: usize,
  dy: usize,
  confidence: usize,
): void {
  for (let k = 0; k < count; k++) {
    const p = at32(holes, k);
    const x = p % width;
    const y = p / width;
    const i = (y - top) * wide + x - left;
    const from = at32(sourceOf, p);
    store<i16>(dx + (<usize>i << 1), <i16>((from % width) - x));
    store<i16>(dy + (<usize>i << 1), <i16>(from / width - y));
    let sure: u8 = 128;
    const j = at32(number, p);
    if (j >= 0) {
      const here = Math.sqrt(<f64>at32(distance, j) / values);
      sure = here <= reference ? 255 : <u8>Math.floor((255 * reference) / here);
    }
    store<u8>(confidence + i, sure);
  }
}
