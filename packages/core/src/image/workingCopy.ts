import { decode, encode } from 'fast-png';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { PictureError, type Picture } from './types.ts';

/**
 * Decodes a working copy (PNG, 8-bit RGBA or RGB) with the same JavaScript decoder everywhere, so that a browser and a server start
 * from the same pixels. Throws PictureError for any other depth.
 */
export function decodeWorkingCopy(bytes: Uint8Array): Picture {
  const png = decode(bytes);
  if (png.depth !== 8 || (png.channels !== 4 && png.channels !== 3))
    throw new PictureError(
      `The working copy has ${png.channels} channels of ${png.depth} bits; wanted 3 or 4 channels of 8 bits.`,
    );
  const n = png.width * png.height;
  const data = new Uint8ClampedArray(n * 4);
  if (png.channels === 4) data.set(png.data as Uint8Array);
  else
    for (let i = 0; i < n; i++) {
      for (let c = 0; c < 3; c++) data[i * 4 + c] = png.data[i * 3 + c];
      data[i * 4 + 3] = 255;
    }
  return { width: png.width, height: png.height, data };
}

/** A PNG of the picture (8-bit RGBA). */
export function encodeWorkingCopy(picture: Picture): Uint8Array {
  return encode({ width: picture.width, height: picture.height, data: Uint8Array.from(picture.data), channels: 4, depth: 8 });
}

/** SHA-256 over width, height (as text) and every byte: the identity of the pixels, whatever file they sit in. */
export function hashPixels(picture: Picture): string {
  const hash = sha256.create();
  hash.update(new TextEncoder().encode(`${picture.width}x${picture.height}:`));
  hash.update(new Uint8Array(picture.data.buffer, picture.data.byteOffset, picture.data.byteLength));
  return bytesToHex(hash.digest());
}
