import { artichoke } from './artichoke.ts';
import { beetroot } from './beetroot.ts';
import { greenhouse } from './greenhouse.ts';
import { honeybee } from './honeybee.ts';
import { mark } from './mark.ts';
import { radish } from './radish.ts';
import { sunflower } from './sunflower.ts';
import type { DrawnSubject } from './types.ts';
import { wateringCan } from './wateringCan.ts';

/** Everything that can be drawn, by its plain name. */
export const SUBJECTS: readonly DrawnSubject[] = [
  radish,
  artichoke,
  sunflower,
  honeybee,
  wateringCan,
  greenhouse,
  beetroot,
  mark,
];
