/** Whether a mask reaches its frame's border. */
export function reachesBorder(mask: Uint8Array, width: number, height: number): boolean {
  for (let x = 0; x < width; x++) if (mask[x] || mask[mask.length - 1 - x]) return true;
  for (let y = 0; y < height; y++) if (mask[y * width] || mask[(y + 1) * width - 1]) return true;
  return false;
}
