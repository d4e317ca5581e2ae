// Compiles the kernels and writes them where the bundlers find them. `--check` only compares.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

const here = new URL('.', import.meta.url);
const target = new URL('src/wasm.ts', here);

export async function compileKernels() {
  let bytes;
  const { error, stderr } = await asc.main(
    [
      fileURLToPath(new URL('assembly/index.ts', here)),
      '--outFile=kernels.wasm',
      '-O3',
      '--noAssert',
      '--runtime=stub',
      '--enable=simd',
      '--enable=bulk-memory',
    ],
    { writeFile: (_, data) => void (bytes = data), listFiles: () => [] },
  );
  if (error) throw new Error(`The kernels do not compile: ${error.message}\n${stderr.toString()}`);
  const names = WebAssembly.Module.exports(new WebAssembly.Module(bytes))
    .filter(e => e.kind === 'function')
    .map(e => `  | '${e.name}'`)
    .sort();
  return (
    '// Made by `npm run build -w @zinc/kernels` from assembly/; a test compares.\n' +
    `export type KernelName =\n${names.join('\n')};\n\n` +
    `export const WASM =\n  '${Buffer.from(bytes).toString('base64')}';\n`
  );
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const text = await compileKernels();
  if (process.argv.includes('--check')) process.exit(readFileSync(target, 'utf8') === text ? 0 : 1);
  writeFileSync(target, text);
  console.log(`${target.pathname.split('/').slice(-2).join('/')}: ${text.length} characters`);
}
