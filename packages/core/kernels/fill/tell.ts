// What a search comes to: twin of src/fill/plain/tell.ts.
import { at32, put32 } from './memory';

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

/** Buckets of the highest eleven bits, then of ten and ten. */
const BUCKETS: i32 = 2048;
const BITS: i32 = 10;

/**
 * The middle one of the distances that are trusted so much, found bits by bits, the highest first; 0 where there are none.
 * @param buckets room for {@link BUCKETS} words
 */
export function middle(distance: usize, trust: usize, count: i32, least: f32, buckets: usize): i32 {
  let found = 0;
  let rank = 0;
  for (let shift = 2 * BITS; shift >= 0; shift -= BITS) {
    const isFirst = shift == 2 * BITS;
    memory.fill(buckets, 0, <usize>BUCKETS << 2);
    let all = 0;
    for (let i = 0; i < count; i++) {
      if (load<f32>(trust + (<usize>i << 2)) < least) continue;
      const d = at32(distance, i) >> shift;
      if (!isFirst && d >> BITS != found) continue;
      const bucket = isFirst ? d : d & ((1 << BITS) - 1);
      put32(buckets, bucket, at32(buckets, bucket) + 1);
      all++;
    }
    if (!all) return 0;
    if (isFirst) rank = all >> 1;
    let bucket = 0;
    for (let many = at32(buckets, 0); rank >= many; many = at32(buckets, bucket)) {
      rank -= many;
      bucket++;
    }
    found = isFirst ? bucket : (found << BITS) | bucket;
  }
  return found;
}
