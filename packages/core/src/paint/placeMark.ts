import { resizePicture } from '../image/resize.ts';
import { checkPicture, type Picture } from '../image/types.ts';
import type { Box } from './options.ts';

/**
 * Lays a mark over a painting exactly as it is: as large as fits into a box (parts of the frame, 0–1), in the middle of it, its alpha kept.
 * Nothing outside the mark changes by a bit. Throws PictureError on malformed pictures.
 */
export function placeMark(painted: Picture, mark: Picture, box: Box): Picture {
  checkPicture(painted);
  checkPicture(mark);
  const { width, height } = painted;
  const scale = Math.min((box.width * width) / mark.width, (box.height * height) / mark.height);
  const w = Math.max(1, Math.round(mark.width * scale));
  const h = Math.max(1, Math.round(mark.height * scale));
  const left = Math.round((box.x + box.width / 2) * width - w / 2);
  const top = Math.round((box.y + box.height / 2) * height - h / 2);
  const small = resizePicture(mark, w, h);
  const out = { width, height, data: painted.data.slice() };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [X, Y] = [left + x, top + y];
      if (X < 0 || Y < 0 || X >= width || Y >= height) continue;
      const from = (y * w + x) * 4;
      const to = (Y * width + X) * 4;
      const cover = small.data[from + 3] / 255;
      if (cover === 0) continue;
      for (let k = 0; k < 3; k++) out.data[to + k] += (small.data[from + k] - out.data[to + k]) * cover;
      out.data[to + 3] = Math.max(out.data[to + 3], small.data[from + 3]);
    }
  return out;
}
