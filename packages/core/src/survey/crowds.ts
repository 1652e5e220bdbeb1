import type { Spot } from './spots.js';

/** Half the side of the square in which other spots crowd a spot, px of the level. */
const CROWD = 24;

/** How many other spots of its polarity lie near each spot. */
export function crowdsOf(spots: readonly Spot[], width: number): Int32Array {
  const cells = new Map<number, number[]>();
  const place = (k: number): [number, number] => {
    const { summit } = spots[k]!;
    return [summit % width, (summit / width) | 0];
  };
  const key = (cx: number, cy: number, polarity: number): number =>
    (cy * 65536 + cx) * 2 + (polarity > 0 ? 1 : 0);
  spots.forEach(({ polarity }, k) => {
    const [x, y] = place(k);
    const at = key((x / CROWD) | 0, (y / CROWD) | 0, polarity);
    const list = cells.get(at);
    if (list) list.push(k);
    else cells.set(at, [k]);
  });
  return Int32Array.from(spots, ({ polarity }, k) => {
    const [x, y] = place(k);
    const [cx, cy] = [(x / CROWD) | 0, (y / CROWD) | 0];
    let near = -1;
    for (let v = cy - 1; v <= cy + 1; v++)
      for (let u = cx - 1; u <= cx + 1; u++)
        for (const other of cells.get(key(u, v, polarity)) ?? []) {
          const [ox, oy] = place(other);
          if (Math.abs(ox - x) <= CROWD && Math.abs(oy - y) <= CROWD) near++;
        }
    return near;
  });
}
