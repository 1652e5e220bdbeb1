/** Tells whether so much time has passed since it last said so; the first time at once. @param least ms */
export function pacedBy(least: number, now: () => number = () => performance.now()): () => boolean {
  let last = -Infinity;
  return () => {
    const at = now();
    if (at - last < least) return false;
    last = at;
    return true;
  };
}
