/** What has no outside, in thirds of a pixel and in px. */
const [FAR, ENDLESS] = [60_000, 1e6];

/** Twin of measure and depths in kernels/shape.ts: the definition the kernel is held to. @param hole 1 = inside, 0 = outside */
export function depthsPlainly(hole: Uint8Array, width: number): Float32Array {
  return Float32Array.from(thirdsPlainly(hole, width), (d) => (d === FAR ? ENDLESS : d / 3));
}

/** Twin of chamfer in kernels/chamfer.ts: thirds of a pixel. */
function thirdsPlainly(hole: Uint8Array, width: number): Uint16Array {
  const d = new Uint16Array(hole.length);
  for (let p = 0; p < d.length; p++) if (hole[p]) d[p] = Math.min(FAR, fromBeside(d, p, width, -1));
  for (let p = d.length - 1; p >= 0; p--)
    if (hole[p]) d[p] = Math.min(d[p]!, fromBeside(d, p, width, 1));
  return d;
}

/** The least that neighbours on one side make of a pixel. @param way -1 = those before it, 1 = those after it */
function fromBeside(d: Uint16Array, p: number, width: number, way: -1 | 1): number {
  const at = (right: number, down: number): number => {
    const x = (p % width) + right;
    const q = p + right + down * width;
    return x < 0 || x >= width || q < 0 || q >= d.length ? FAR : d[q]!;
  };
  const straight = Math.min(at(way, 0), at(0, way));
  const aslant = Math.min(at(-1, way), at(1, way));
  return Math.min(straight + 3, aslant + 4);
}
