/** Steps to the four pixels that share a side with a pixel. */
export const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
