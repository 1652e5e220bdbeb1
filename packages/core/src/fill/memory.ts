import { MATCH_KERNEL } from './match-kernel.js';

/** The compiled kernel's functions; addresses are byte offsets into its memory. */
export interface Kernel {
  measure(
    pixels: number,
    target: number,
    match: number,
    distance: number,
    width: number,
    count: number,
  ): void;
  improve(
    pixels: number,
    source: number,
    number: number,
    target: number,
    match: number,
    distance: number,
    width: number,
    height: number,
    count: number,
    pass: number,
    seed: number,
  ): void;
  vote(
    pixels: number,
    number: number,
    match: number,
    distance: number,
    trust: number,
    holes: number,
    scratch: number,
    width: number,
    height: number,
    count: number,
    sharpness: number,
  ): void;
}

/** One stretch of memory that typed arrays are cut from and the kernel works on. */
export interface KernelMemory {
  readonly kernel: Kernel;
  bytes(length: number): Uint8Array;
  words(length: number): Int32Array;
  floats(length: number): Float32Array;
}

interface WasmApi {
  Memory: new (limits: { initial: number }) => { readonly buffer: ArrayBuffer };
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { readonly exports: object };
}

declare const WebAssembly: WasmApi;

const PAGE = 65536;
const ALIGN = 16;
let compiled: object | null = null;

/** Room for arrays of these many bytes in all, each rounded up. @param arrays how many arrays will be cut */
export function kernelMemory(bytes: number, arrays: number): KernelMemory {
  compiled ??= new WebAssembly.Module(fromBase64(MATCH_KERNEL));
  const initial = Math.ceil((bytes + arrays * ALIGN + PAGE) / PAGE);
  const memory = new WebAssembly.Memory({ initial });
  const env = {
    memory,
    abort: () => {
      throw new Error('the match kernel gave up');
    },
  };
  const instance = new WebAssembly.Instance(compiled, { env });
  // The module keeps its few globals at the bottom of the memory.
  let next = 1024;
  const cut = (length: number): number => {
    const at = next;
    next += Math.ceil(length / ALIGN) * ALIGN;
    return at;
  };
  return {
    kernel: instance.exports as Kernel,
    bytes: (length) => new Uint8Array(memory.buffer, cut(length), length),
    words: (length) => new Int32Array(memory.buffer, cut(length * 4), length),
    floats: (length) => new Float32Array(memory.buffer, cut(length * 4), length),
  };
}

/** Decodes base64 (RFC 4648) without help from the surroundings. */
function fromBase64(text: string): Uint8Array {
  const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  const body = text.replace(/=+$/, '');
  const bytes = new Uint8Array(Math.floor((body.length * 3) / 4));
  let bits = 0;
  let held = 0;
  let to = 0;
  for (const ch of body) {
    held = (held << 6) | alphabet.indexOf(ch);
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    bytes[to++] = (held >>> bits) & 255;
  }
  return bytes;
}
