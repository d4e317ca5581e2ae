import { WASM, type KernelName } from './wasm.ts';

/** Just what is used of WebAssembly, so that no other library of types is needed. */
declare const WebAssembly: {
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { exports: unknown };
};

type Numbers = (...values: number[]) => number;

/** The compiled kernels; what each does stands beside its source in `assembly/`. Addresses are bytes. */
export interface Kernels extends Record<KernelName, Numbers> {
  memory: { buffer: ArrayBuffer; grow(pages: number): number };
}

const PAGE = 65536;
/** Loops take four numbers at a time, so every room may be read and written this far past its end. */
const SLACK = 64;

const bytes = Uint8Array.from(atob(WASM), c => c.charCodeAt(0));
const abort = (): never => {
  throw new Error('A kernel stopped: it was given an address outside its memory.');
};
export const kernels = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { abort } }).exports as Kernels;

let top = (kernels.heapBase() + 15) & ~15;

/** Room for `count` bytes, aligned; its content is whatever was there. Views of the memory made before may be dead after. */
export function room(count: number): number {
  const at = top;
  top = (top + count + SLACK + 15) & ~15;
  const missing = top - kernels.memory.buffer.byteLength;
  if (missing > 0) kernels.memory.grow(Math.ceil(missing / PAGE));
  return at;
}

/** Room for `count` 32-bit numbers. */
export const plane = (count: number): number => room(count * 4);

/** A plane with all values 0. */
export function zeros(count: number): number {
  const at = plane(count);
  new Uint8Array(kernels.memory.buffer, at, count * 4).fill(0);
  return at;
}

type Values = Float32Array | Float64Array | Int32Array | Uint16Array | Uint8Array | Uint8ClampedArray;

/** Copies values into new room. */
export function put(values: Values): number {
  const at = room(values.byteLength);
  bytesAt(at, values.byteLength).set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength));
  return at;
}

/** Copies from an address into `to`, and returns it. */
export function take<T extends Values>(at: number, to: T): T {
  new Uint8Array(to.buffer, to.byteOffset, to.byteLength).set(bytesAt(at, to.byteLength));
  return to;
}

/** A view, good until the next room is made. */
const bytesAt = (at: number, count: number): Uint8Array => new Uint8Array(kernels.memory.buffer, at, count);
export const floatsAt = (at: number, count: number): Float32Array => new Float32Array(kernels.memory.buffer, at, count);

/** Does `work`, then gives back all room that it made. */
export function within<T>(work: () => T): T {
  const mark = top;
  try {
    return work();
  } finally {
    top = mark;
  }
}

/** Numbers done at a time, so that what is copied in and out stays small and near. */
const BLOCK = 16384;

/**
 * Does `work` on planes of one length, a block at a time: it is given the addresses of `changed` planes, which are copied back, then of those it
 * only reads, and how many numbers the block holds.
 */
export function inBlocks(changed: Float32Array[], read: Float32Array[], work: (at: number[], count: number) => void): void {
  const n = changed[0].length;
  for (let start = 0; start < n; start += BLOCK)
    within(() => {
      const end = Math.min(n, start + BLOCK);
      const part = (p: Float32Array): Float32Array => p.subarray(start, end);
      const at = [...changed, ...read].map(p => put(part(p)));
      work(at, end - start);
      changed.forEach((p, k) => take(at[k], part(p)));
    });
}
