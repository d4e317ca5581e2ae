/** Source of `src/wasm.ts` as the kernels stand now. Throws when they do not compile. */
export function compileKernels(): Promise<string>;
