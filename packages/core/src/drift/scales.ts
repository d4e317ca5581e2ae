import type { Facet } from '../measure/types.ts';
import type { componentsOf } from './components.ts';

type Scale = readonly [name: keyof ReturnType<typeof componentsOf>, noise: number, weight: number];

/**
 * Noise and weight of every difference, found on the tuning set of references (8 families × 3) painted on the tuning contents, which share
 * nothing with the set that drift is judged on. The noise is the mean difference between paintings of one reference. Weights grow with how
 * much better a difference tells looks apart than contents, at most a quarter of a facet each, and are scaled so that two paintings of
 * unlike references are 1 apart on the mean.
 */
export const SCALES: Record<Facet, readonly Scale[]> = {
  colour: [
    ['palette', 0.0391, 1.65],
    ['paletteEven', 0.0385, 2.16],
    ['strangers', 0.0521, 2.38],
    ['missing', 0.0212, 4.52],
    ['ground', 0.0428, 0.296],
    ['chroma', 0.0167, 5.12],
    ['hue', 0.0464, 2.11],
    ['inks', 0.288, 0.203],
    ['warmth', 0.0137, 1.77],
  ],
  light: [
    ['tone', 0.0693, 1.19],
    ['spread', 0.0536, 2.5],
    ['darkest', 0.0558, 2.31],
    ['contrast', 0.0556, 1.92],
    ['bimodality', 0.121, 0.566],
    ['paper', 0.00695, 19.3],
  ],
  line: [
    ['edge', 0.305, 0.219],
    ['sharpness', 0.0141, 3.27],
    ['dark', 0.362, 0.0753],
    ['light', 0.333, 0.0997],
    ['darkShape', 0.0574, 0.552],
    ['lightShape', 0.0607, 0.373],
    ['width', 0.198, 0.207],
    ['raggedness', 0.0994, 0.556],
    ['coherence', 0.0724, 0.994],
    ['agreement', 0.131, 0.3],
    ['direction', 0.0269, 0.795],
  ],
  texture: [
    ['bands', 0.196, 0.18],
    ['bandShape', 0.0203, 1.57],
    ['chromaBands', 0.22, 0.122],
    ['flatness', 0.0936, 0.804],
    ['softness', 0.0519, 0.967],
    ['grain', 0.292, 0.0767],
    ['along', 0.286, 0.162],
    ['across', 0.254, 0.166],
    ['run', 0.0863, 0.605],
    ['jitter', 0.266, 0.0726],
    ['shadow', 0.0017, 7.76],
    ['period', 0.0881, 0.224],
    ['dots', 0.0207, 1.37],
  ],
};
