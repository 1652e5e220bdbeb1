/** Description of an ICC profile (ICC.1:2022, 9.2.41), or 'unnamed profile'. */
export function profileName(icc: Buffer): string {
  const unnamed = 'unnamed profile';
  if (icc.length < 132) return unnamed;
  const count = icc.readUInt32BE(128);
  for (let k = 0; k < count && 144 + 12 * k <= icc.length; k++) {
    const entry = 132 + 12 * k;
    if (icc.toString('latin1', entry, entry + 4) !== 'desc') continue;
    const at = icc.readUInt32BE(entry + 4);
    const size = icc.readUInt32BE(entry + 8);
    if (at + size > icc.length || size < 16) return unnamed;
    const kind = icc.toString('latin1', at, at + 4);
    if (kind === 'desc') {
      const length = icc.readUInt32BE(at + 8);
      return icc.toString('latin1', at + 12, at + 12 + length).replace(/\0.*$/s, '') || unnamed;
    }
    if (kind === 'mluc' && size >= 28) {
      const length = icc.readUInt32BE(at + 20);
      const start = at + icc.readUInt32BE(at + 24);
      if (start + length > icc.length) return unnamed;
      const text = Buffer.from(icc.subarray(start, start + length))
        .swap16()
        .toString('utf16le');
      return text.replace(/\0.*$/s, '') || unnamed;
    }
  }
  return unnamed;
}
