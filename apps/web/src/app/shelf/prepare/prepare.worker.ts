/// <reference lib="webworker" />
import {
  decodeWorkingCopy,
  drift,
  facetMaps,
  measure,
  PreparationError,
  prepare,
  resizePicture,
  type Fingerprint,
  type Picture,
} from '@zinc/core';
import type { PrepareAnswer, PrepareOrder, Shown } from './preparing';

/** Long side of the copy that is worked on while a hand moves; the variant itself is made from the whole picture by the server. */
const SIDE = 640;
const SMALL = 200;

let original: Picture | null = null;
let own: Fingerprint | null = null;

function within(picture: Picture, side: number): Picture {
  const k = side / Math.max(picture.width, picture.height);
  if (k >= 1) return picture;
  return resizePicture(picture, Math.max(1, Math.round(picture.width * k)), Math.max(1, Math.round(picture.height * k)));
}

function shown({ width, height, data }: Picture): Shown {
  return { width, height, pixels: new Uint8ClampedArray(data) };
}

function answer(message: PrepareAnswer): void {
  postMessage(message);
}

addEventListener('message', ({ data }: MessageEvent<PrepareOrder>) => {
  if (data.kind === 'picture') {
    original = within(decodeWorkingCopy(new Uint8Array(data.bytes)), SIDE);
    own = measure(original);
    return answer({ kind: 'ready', original: shown(original), fingerprint: own, maps: facetMaps(original) });
  }
  if (!original || !own) return;
  const { id, preparation } = data;
  try {
    const made = prepare(original, preparation);
    const fingerprint = measure(made);
    const seen =
      data.whole && preparation.crop ? prepare(original, { ...preparation, crop: undefined, treatment: undefined }) : made;
    answer({
      kind: 'made',
      id,
      shown: shown(seen),
      small: shown(within(made, SMALL)),
      fingerprint,
      drift: drift(fingerprint, own),
    });
  } catch (error) {
    if (!(error instanceof PreparationError)) throw error;
    answer({ kind: 'refused', id, part: error.part, message: error.message });
  }
});
