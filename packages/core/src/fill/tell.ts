import type { Rect } from '../raster/rect.js';
import { assignSources } from './assign.js';
import { PATCH_VALUES, usualDifference } from './confidence.js';
import type { DonorMap } from './donor-map.js';
import { NOT_FILLED } from './donor-map.js';
import type { Field } from './field.js';

/**
 * Ends a search: assigns the sources and tells them, with how sure each is: the patch centred on a pixel is compared with
 * its source, and that with what is usual. 255 = hardly less alike, falling with the root of the mean squared difference.
 * What the level's pixels held is lost: the map is written there first.
 * @param box the site in the window @param origin where the window lies in the original
 */
export function tellMap(field: Field, box: Rect, origin: Rect): DonorMap {
  const { room, holes, number, distance, plane, level } = field;
  assignSources(field);
  const n = box.width * box.height;
  const { buffer, byteOffset } = level.pixels;
  const dx = new Int16Array(buffer, byteOffset, n).fill(NOT_FILLED);
  const dy = new Int16Array(buffer, byteOffset + 2 * n, n).fill(NOT_FILLED);
  const confidence = new Uint8Array(buffer, byteOffset + 4 * n, n).fill(0);
  room.arena.kernel.tell(
    holes.byteOffset,
    holes.length,
    plane.byteOffset,
    level.width,
    number.byteOffset,
    distance.byteOffset,
    PATCH_VALUES,
    usualDifference(field),
    box.x,
    box.y,
    box.width,
    dx.byteOffset,
    dy.byteOffset,
    confidence.byteOffset,
  );
  return {
    rect: { ...box, x: box.x + origin.x, y: box.y + origin.y },
    dx: Int16Array.from(dx),
    dy: Int16Array.from(dy),
    confidence: Uint8Array.from(confidence),
  };
}
