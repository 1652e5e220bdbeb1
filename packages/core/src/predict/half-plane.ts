/** How far neighbours lie, px. */
export const REACH = 3;
const ROUND = 10;

/**
 * Neighbours that a pixel is foretold from: those before it in reading order, in a half disc. A half plane is what makes
 * the errors of the best linear prediction white, and so the most likely values those of least error
 * (Ekstrom, Woods, "Two-dimensional spectral factorization", IEEE Trans. ASSP 24(2), 1976).
 */
export const BEFORE: readonly (readonly [x: number, y: number])[] = halfDisc();

function halfDisc(): (readonly [number, number])[] {
  const found: (readonly [number, number])[] = [];
  for (let y = -REACH; y <= 0; y++)
    for (let x = -REACH; x <= REACH; x++)
      if ((y < 0 || x < 0) && x * x + y * y <= ROUND) found.push([x, y]);
  return found;
}
