import { resizePicture } from './resize.ts';
import type { Picture } from './types.ts';

/** A picture cropped around its middle to the wanted shape and brought to the wanted size. The same size comes back unchanged. */
export function fitPicture(picture: Picture, width: number, height: number): Picture {
  if (picture.width === width && picture.height === height) return picture;
  const wanted = width / height;
  const own = picture.width / picture.height;
  const w = own > wanted ? Math.max(1, Math.round(picture.height * wanted)) : picture.width;
  const h = own > wanted ? picture.height : Math.max(1, Math.round(picture.width / wanted));
  return resizePicture(
    cropPicture(picture, Math.floor((picture.width - w) / 2), Math.floor((picture.height - h) / 2), w, h),
    width,
    height,
  );
}

/** A part of a picture, in pixels; it must lie inside. */
export function cropPicture(picture: Picture, left: number, top: number, width: number, height: number): Picture {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    const from = ((top + y) * picture.width + left) * 4;
    data.set(picture.data.subarray(from, from + width * 4), y * width * 4);
  }
  return { width, height, data };
}
