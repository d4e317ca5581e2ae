import type { Picture, PaintOptions } from '@zinc/core';
import { drawSubject, photograph } from '@zinc/scenes';

/** Something to paint, with what is known of it: a drawn subject brings its mask and parts, a photograph nothing. */
export interface Content {
  name: string;
  kind: 'subject' | 'photo';
  picture: Picture;
  options: PaintOptions;
}

/** Subjects and photographs of each set; judging shares none with tuning. */
const NAMES = {
  tuning: { subjects: ['radish', 'artichoke', 'sunflower', 'beetroot'], photos: ['radish', 'beetroot'] },
  judging: {
    subjects: ['honeybee', 'watering can', 'greenhouse', 'carrot', 'pumpkin', 'leek'],
    photos: ['watering can', 'pumpkin', 'carrot'],
  },
};

export function makeContents(set: keyof typeof NAMES, side: number): Content[] {
  const { subjects, photos } = NAMES[set];
  return [
    ...subjects.map((name, k): Content => {
      const { picture, mask, parts } = drawSubject(name, 21 + k, side, side);
      return { name, kind: 'subject', picture, options: { mask, parts } };
    }),
    ...photos.map((name, k): Content => ({
      name: `photo of ${name}`,
      kind: 'photo',
      picture: photograph(name, 41 + k, side, side),
      options: {},
    })),
  ];
}
