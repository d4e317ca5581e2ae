import { artichoke } from './artichoke.ts';
import { beanPod } from './beanPod.ts';
import { beetroot } from './beetroot.ts';
import { carrot } from './carrot.ts';
import { coldFrame } from './coldFrame.ts';
import { garlic } from './garlic.ts';
import { greenhouse } from './greenhouse.ts';
import { honeybee } from './honeybee.ts';
import { kale } from './kale.ts';
import { leek } from './leek.ts';
import { mark } from './mark.ts';
import { marketStall } from './marketStall.ts';
import { peaShoot } from './peaShoot.ts';
import { pumpkin } from './pumpkin.ts';
import { radish } from './radish.ts';
import { rainBarrel } from './rainBarrel.ts';
import { scarecrow } from './scarecrow.ts';
import { seedPacket } from './seedPacket.ts';
import { snail } from './snail.ts';
import { sunflower } from './sunflower.ts';
import { trowel } from './trowel.ts';
import { wateringCan } from './wateringCan.ts';
import { wheelbarrow } from './wheelbarrow.ts';
import { wren } from './wren.ts';
import type { DrawnSubject } from './types.ts';

/** Everything that can be drawn, by its plain name. */
export const SUBJECTS: readonly DrawnSubject[] = [
  radish,
  artichoke,
  sunflower,
  beanPod,
  beetroot,
  leek,
  garlic,
  peaShoot,
  pumpkin,
  carrot,
  kale,
  honeybee,
  wren,
  snail,
  wateringCan,
  trowel,
  coldFrame,
  greenhouse,
  wheelbarrow,
  seedPacket,
  scarecrow,
  rainBarrel,
  marketStall,
  mark,
];
