/** A picture at the edge of the core: 8-bit sRGB, straight alpha, four bytes a pixel, rows from the top. */
export interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

/** The same picture inside the core: OKLab planes (L in 0–1, a and b about ±0.4), composited on white. */
export interface LabPlanes {
  width: number;
  height: number;
  L: Float32Array;
  a: Float32Array;
  b: Float32Array;
}

/** One plane of numbers with its size. */
export interface Plane {
  width: number;
  height: number;
  data: Float32Array;
}

/** One colour in OKLab. */
export interface Lab {
  L: number;
  a: number;
  b: number;
}

/** A picture that cannot be worked on, with what was got and what was wanted. */
export class PictureError extends Error {
  override name = 'PictureError';
}

/** Throws {@link PictureError} unless the picture has whole, positive sides and four bytes for every pixel. */
export function checkPicture(picture: Picture): void {
  const { width, height, data } = picture;
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new PictureError(`The picture is ${width} × ${height} pixels; both sides must be whole numbers of 1 or more.`);
  if (width * height > 100_000_000)
    throw new PictureError(`The picture is ${width} × ${height} pixels; at most 100 million pixels can be worked on.`);
  if (data.length !== width * height * 4)
    throw new PictureError(`The picture holds ${data.length} bytes; ${width} × ${height} pixels need ${width * height * 4}.`);
}
