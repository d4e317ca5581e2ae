import { photograph } from '@zinc/scenes';
import sharp from 'sharp';

/** A photograph-like picture of a drawn thing, as a PNG file: what the demo house restyles. */
export default async function photo({ name, seed, side }: { name: string; seed: number; side: number }): Promise<Uint8Array> {
  const { data, width, height } = photograph(name, seed, side, side);
  return sharp(data, { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
}
