/** One stretch of memory that typed arrays are cut from, one after the other. */
export interface Stretch {
  bytes(length: number): Uint8Array;
  shorts(length: number): Int16Array;
  words(length: number): Int32Array;
  floats(length: number): Float32Array;
  doubles(length: number): Float64Array;
}

/** The memory a kernel works on, and other kernels with it. */
export interface Arena<Kernel> extends Stretch {
  /** The compiled kernel's functions; addresses are byte offsets into its memory. */
  readonly kernel: Kernel;
  /** Memory and module, for threads that work on them together. */
  readonly room: Room;
  /** Another kernel on the same memory, made for shared memory if this one is. */
  join<Other>(code: string): Pick<Arena<Other>, 'kernel' | 'room'>;
  /**
   * So much more memory, after all that there was. Shared memory only: arrays of other memory are lost when it grows.
   * @param bytes room for arrays of these many bytes in all, each rounded up @param arrays how many arrays will be cut
   */
  more(bytes: number, arrays: number): Stretch;
}

interface WasmApi {
  Memory: new (limits: { initial: number; maximum?: number; shared?: boolean }) => {
    readonly buffer: ArrayBuffer;
    grow(pages: number): number;
  };
  Module: new (bytes: Uint8Array) => object;
  compile(bytes: Uint8Array): Promise<object>;
  Instance: new (module: object, imports: object) => { readonly exports: object };
}

declare const WebAssembly: WasmApi;

const PAGE = 65536;
/** As much as a kernel can address: what shared memory may grow to is told when it is made. */
const MOST_PAGES = 65536;
/** Where arrays begin. */
export const ALIGN = 16;
/** Modules keep their few globals at the bottom of the memory. */
const GLOBALS = 1024;
/** Memory up to this size is kept for the next arena of its kernel: touching new pages costs more than zeroing. */
const KEPT = 48_000_000;
const compiled = new Map<string, object>();
const kept = new Map<string, Room>();

/** An instance of a kernel with the memory it works on. */
export interface Room {
  /** The compiled module; with shared memory other threads make instances of their own. */
  readonly module: object;
  readonly memory: InstanceType<WasmApi['Memory']>;
  readonly exports: object;
}

/** Options of {@link openArena}. */
export interface ArenaOptions {
  /** The arrays are done with before the kernel's next arena is opened: it takes over the memory. @default false */
  once?: boolean;
  /** The kernel was compiled for memory that threads share. @default false */
  shared?: boolean;
}

/**
 * A kernel with zeroed memory.
 * @param code base64 of a module that imports its memory
 * @param bytes room for arrays of these many bytes in all, each rounded up
 * @param arrays how many arrays will be cut
 * @throws RangeError when there is not so much memory
 */
export function openArena<Kernel>(
  code: string,
  bytes: number,
  arrays: number,
  { once = false, shared = false }: ArenaOptions = {},
): Arena<Kernel> {
  const needed = bytes + (arrays + 64) * ALIGN + PAGE;
  let room = once ? kept.get(code) : undefined;
  if (room && room.memory.buffer.byteLength >= needed) zero(room.memory.buffer, GLOBALS, needed);
  else {
    const initial = Math.ceil(needed / PAGE);
    const limits = shared ? { initial, maximum: MOST_PAGES, shared } : { initial };
    room = makeRoom(code, new WebAssembly.Memory(limits));
    if (once && needed <= KEPT) kept.set(code, room);
  }
  const { memory, exports } = room;
  return {
    kernel: exports as Kernel,
    room,
    ...stretchOf(memory.buffer, GLOBALS),
    join: <Other>(other: string) => {
      const joined = makeRoom(other, memory);
      return { kernel: joined.exports as Other, room: joined };
    },
    more: (length, count) => {
      const begin = memory.buffer.byteLength;
      memory.grow(Math.ceil((length + count * ALIGN) / PAGE));
      return stretchOf(memory.buffer, begin);
    },
  };
}

/**
 * Compiles kernels ahead, beside whatever else is done, so that they are ready when an arena is opened. Needs nobody to
 * wait for it: a kernel that is not ready is compiled when it is asked for.
 */
export async function compileAhead(codes: readonly string[]): Promise<void> {
  await Promise.all(
    codes.map(async (code) => {
      if (!compiled.has(code)) compiled.set(code, await WebAssembly.compile(fromBase64(code)));
    }),
  );
}

/** Zeroes what lies from one byte up to another. @param begin a multiple of {@link ALIGN} @param end may be made up to one */
export function zero(buffer: ArrayBuffer, begin: number, end: number): void {
  // Shared memory is written value by value: the larger they are, the fewer.
  new Float64Array(buffer, begin, roundedUp(end - begin) / 8).fill(0);
}

/** What begins so many bytes into a memory. @param begin a multiple of {@link ALIGN} */
export function stretchOf(buffer: ArrayBuffer, begin: number): Stretch {
  let next = begin;
  const cut = (length: number): number => {
    const at = next;
    next += roundedUp(length);
    return at;
  };
  return {
    bytes: (length) => new Uint8Array(buffer, cut(length), length),
    shorts: (length) => new Int16Array(buffer, cut(length * 2), length),
    words: (length) => new Int32Array(buffer, cut(length * 4), length),
    floats: (length) => new Float32Array(buffer, cut(length * 4), length),
    doubles: (length) => new Float64Array(buffer, cut(length * 8), length),
  };
}

/** Bytes that an array of so many takes up. */
function roundedUp(bytes: number): number {
  return Math.ceil(bytes / ALIGN) * ALIGN;
}

function makeRoom(code: string, memory: Room['memory']): Room {
  let module = compiled.get(code);
  if (!module) compiled.set(code, (module = new WebAssembly.Module(fromBase64(code))));
  const env = {
    memory,
    abort: () => {
      throw new Error('a kernel gave up');
    },
  };
  return { module, memory, exports: new WebAssembly.Instance(module, { env }).exports };
}

const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Decodes base64 (RFC 4648) without help from the surroundings. */
function fromBase64(text: string): Uint8Array {
  const values = new Uint8Array(128);
  for (let i = 0; i < ALPHABET.length; i++) values[ALPHABET.charCodeAt(i)] = i;
  const body = text.replace(/=+$/, '');
  const bytes = new Uint8Array(Math.floor((body.length * 3) / 4));
  let held = 0;
  let bits = 0;
  let to = 0;
  for (let k = 0; k < body.length; k++) {
    held = ((held << 6) | values[body.charCodeAt(k)]!) & 0xffff;
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    bytes[to++] = (held >>> bits) & 255;
  }
  return bytes;
}
