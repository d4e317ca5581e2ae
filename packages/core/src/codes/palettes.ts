import { labOfHex } from '../colour/oklab.ts';
import { normaliseShares } from '../measure/palette.ts';
import type { PaletteColour } from '../measure/types.ts';

/**
 * The 64 palettes of style codes: ground, main, second, accent, dark. Their places never change; a code of version 1 names one by its number.
 * Neighbours are relatives: eight groups of eight, each from calm to bold.
 */
const HEX = `
f3eee2 5f7f6b a9b79a 8e2a4b 23262b | f5efe3 6b8a5a c9b37a b5472f 2c2a24 | efe9da 4f6f5d 9fb08a d08a3c 25302b | f1ecdf 7a8f4f c5c08a 9a3f3a 30301f
f6f1e4 3f6b57 8fb39b e0a13c 1f2b28 | ece7d8 58754a b7a96a c0552f 272a1c | f4eddc 2f5f52 b8c4a2 d9613f 1d2724 | f0e8d2 39664a d6b65a a83244 20261f
f7f1e6 c8553d e0a98a 3f6f73 2b2a2e | f4ebdd b5412f e6b48c 4f7f6b 2a2322 | f8efe2 d9703f edc29a 2f5d78 27252c | f2e8d8 a8382f d89a6a 6d8a4f 2c1f1c
faf2e5 e0653a f2bf7a 1f6f6b 252830 | f3e6d3 c2462b f0a860 35557f 241f22 | f6ecdb d8452f f4c15a 277a6a 1e2026 | f1e3cb b8322a efb23f 1f5a6f 221b1e
f4f2ea 567ebb b9cbe0 d8734a 22304a | f1f0ea 3f6a9a a4bfd0 c2553f 1f2b3a | f6f3ea 2b5f8a 8fb8c9 e0a04a 1b2836 | ecedea 4f6f8f c4ccd0 8e3a5a 252c36
f5f2e6 1f5a8f 7fb0d0 f0b33a 17233a | eeeee6 35587a 9fb5bd d9622f 1d2530 | f7f4e8 2a4fa0 8aa6e0 ef6a4a 181f38 | f2eee0 1d4f7a 6fa8b8 e8483a 14202e
f7f0f0 a8577a d9a8b8 5f7f8a 2f2430 | f5eeea 8e3f6a cfa0a0 6f8f6a 2b1f2a | faf1ee c05a80 ecb4b4 3f7a80 2c2330 | f2e9e6 7a2f5a c98f8f d0a04a 261a26
f8efe8 b23a6a f0a0a0 2f7f7a 281c2c | f3e8e2 942f5f e29a7a 4a6fa0 231a2a | f9efe6 d03f70 f6b26b 1f7f8a 241a30 | f1e4dc a5255f f08a6a f0c24a 1f1528
f6f2e2 d8a72f efd98f 5a6f8a 2d2a22 | f3eedb c4922a e3cf85 8e4a3a 2a261c | f8f3e0 e6b52f f5e08a 3f6f6a 282820 | f0e9d2 b5831f dcc27a 6a3f5a 27221a
faf4dd f0b81f f7dd7a d8533a 25221e | f4ecd0 d29a1f efd06a 2f6f8a 221f1a | f9f2d6 f2a81a f8d860 b8325a 201c1c | f1e6c4 e08f1a f4c84a 1f6a5f 1d1a16
eef0ec 6f8f88 b8c8c0 b0704a 2a3030 | e9ece8 5a7a7a a8bcb8 c28a4a 252c2e | f0f2ee 4f8a82 a9d0c4 d0703f 1f2a2c | e6eae6 3f6f70 9ab8b0 a84a4a 1e282a
f1f4ef 2f8a80 8fd0c0 e0813f 182426 | e8ede8 2f6a6f 8ab8b4 d8a04a 1a2428 | f3f5ee 1f9a8f 7fd8c8 f06a4a 14202a | e6ece4 1f7a72 6fc0b0 e85a4a 121e24
f3ede4 8a6a4a c9ac84 5f7a6a 2c2420 | efe6d8 7a553a bf9a6f 8f4a3a 271e1a | f5eee2 9a7048 dcc09a 3f6a78 2a2320 | ece1cf 6a4a32 b58f60 a8602f 221a15
f6ecdc a8683a e2b27f 2f6a6a 261e1c | f0e3cd 8a4a2a d8a06a 4a6a8a 211815 | f7ecd8 b8622f ecbc80 1f5f70 221a1a | ede0c5 9a4f22 dda55a 7a2f4a 1c1512
f2f0ee 6a6a72 b4b4b8 8e2a4b 1f1f24 | efeeea 5a5f66 a9adb0 c8823a 1c1e22 | f5f3ef 4a4f58 c4c4c2 d0452f 18191d | ebe9e4 70706a bcb8ac 3f6f8a 22221f
f6f4f0 3a3f48 9aa0a8 e05a3a 141519 | f0eee8 2f353c 8f979c f0b030 121417 | f8f6f2 24282f b0b4b8 2f8a7a 0f1114 | edeae2 1f2226 a8a49a d82f4a 0c0d10
`;

const SHARES = [5, 2.2, 1.5, 0.7, 0.9];

/** How many palettes there are: six bits of a code. */
export const PALETTE_COUNT = 64;

const TABLE: PaletteColour[][] = HEX.trim()
  .split(/[|\n]/)
  .map(row =>
    row
      .trim()
      .split(' ')
      .map((hex, k) => ({ ...labOfHex(`#${hex}`), share: SHARES[k] })),
  );

/** A palette of the table by its number, 0–63; `lead` 1 lets main and second change places. Throws RangeError outside. */
export function codePalette(number: number, lead = 0): PaletteColour[] {
  const row = TABLE[number];
  if (!row) throw new RangeError(`Got the palette number ${number}; wanted a whole number from 0 to ${PALETTE_COUNT - 1}.`);
  const [ground, main, second, accent, dark] = row;
  const out = lead === 1 ? [ground, { ...main, share: second.share }, { ...second, share: main.share }, accent, dark] : row;
  return normaliseShares(out).sort((p, q) => p.L - q.L);
}
