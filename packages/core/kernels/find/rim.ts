// Points a little outside a site, all along its border.

@inline
function isIn(hole: usize, p: i32): bool {
  return load<u8>(hole + p) != 0;
}

/**
 * The points `out` px outside every border pixel of a site that lie at least `margin` px from the window's border: their places
 * and the way from them into the site, four doubles each.
 * @param points room for them; 0 when they are only counted @returns how many there are
 */
export function rim(
  hole: usize,
  width: i32,
  height: i32,
  out: f64,
  margin: f64,
  points: usize,
): i32 {
  let count = 0;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      if (!isIn(hole, p)) continue;
      if (isIn(hole, p - 1) && isIn(hole, p + 1) && isIn(hole, p - width) && isIn(hole, p + width))
        continue;
      // The sum of the ways to what lies outside near it.
      let right = 0;
      let down = 0;
      for (let v = max(0, y - 3); v <= min(height - 1, y + 3); v++)
        for (let u = max(0, x - 3); u <= min(width - 1, x + 3); u++)
          if (!isIn(hole, v * width + u)) {
            right += u - x;
            down += v - y;
          }
      if (!right && !down) continue;
      const length = Math.sqrt(<f64>(right * right + down * down));
      const ox = <f64>right / length;
      const oy = <f64>down / length;
      const px = Math.floor(<f64>x + out * ox + 0.5);
      const py = Math.floor(<f64>y + out * oy + 0.5);
      if (px < margin || py < margin) continue;
      if (px >= <f64>width - margin || py >= <f64>height - margin) continue;
      if (points) {
        store<f64>(points, px);
        store<f64>(points, py, 8);
        store<f64>(points, -ox, 16);
        store<f64>(points, -oy, 24);
        points += 32;
      }
      count++;
    }
  return count;
}
