/**
 * Fast 128-bit digest of bytes, for cache keys (not for security). Four independent 32-bit lanes of
 * multiply-rotate mixing with the finaliser of MurmurHash3 (Appleby, public domain); same in every engine.
 * @returns 32 lower-case hexadecimal digits
 */
export function digest(bytes: Uint8Array): string {
  let a = 0x9e3779b9 ^ bytes.length;
  let b = 0x85ebca6b;
  let c = 0xc2b2ae35;
  let d = 0x27d4eb2f;
  const whole = bytes.length & ~15;
  for (let i = 0; i < whole; i += 16) {
    a = mix(a, word(bytes, i), 0xcc9e2d51);
    b = mix(b, word(bytes, i + 4), 0x1b873593);
    c = mix(c, word(bytes, i + 8), 0x85ebca77);
    d = mix(d, word(bytes, i + 12), 0x2c1b3c6d);
    a = (a + b) | 0;
    c = (c + d) | 0;
    b = (b ^ c) | 0;
    d = (d ^ a) | 0;
  }
  for (let i = whole; i < bytes.length; i++) {
    a = mix(a, bytes[i]!, 0xcc9e2d51);
    d = (d ^ a) | 0;
  }
  for (let round = 0; round < 2; round++) {
    a = finish((a + d) | 0);
    b = finish((b + a) | 0);
    c = finish((c + b) | 0);
    d = finish((d + c) | 0);
  }
  return hex(a) + hex(b) + hex(c) + hex(d);
}

/** {@link digest} of a text's UTF-16 code units. */
export function digestText(text: string): string {
  const bytes = new Uint8Array(text.length * 2);
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    bytes[2 * i] = unit & 255;
    bytes[2 * i + 1] = unit >>> 8;
  }
  return digest(bytes);
}

function word(bytes: Uint8Array, i: number): number {
  return bytes[i]! | (bytes[i + 1]! << 8) | (bytes[i + 2]! << 16) | (bytes[i + 3]! << 24);
}

function mix(lane: number, value: number, factor: number): number {
  let k = Math.imul(value, factor);
  k = (k << 15) | (k >>> 17);
  let h = lane ^ Math.imul(k, 0x1b873593);
  h = (h << 13) | (h >>> 19);
  return (Math.imul(h, 5) + 0xe6546b64) | 0;
}

function finish(lane: number): number {
  let h = lane;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}

function hex(lane: number): string {
  return (lane >>> 0).toString(16).padStart(8, '0');
}
