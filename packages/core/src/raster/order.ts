/**
 * Places of values, the least value first, in their own order where values are alike. Value and place are sorted as one number,
 * which is several times quicker than sorting by a function.
 * @param values whose greatest size times steps times count stays below 2^53
 * @param steps in 1 that values are told apart by
 */
export function orderOf(values: ArrayLike<number>, steps: number): Int32Array {
  const n = values.length;
  const keys = new Float64Array(n);
  for (let k = 0; k < n; k++) keys[k] = Math.round(values[k]! * steps) * n + k;
  keys.sort();
  const order = new Int32Array(n);
  for (let k = 0; k < n; k++) order[k] = keys[k]! - Math.floor(keys[k]! / n) * n;
  return order;
}
