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
    ['palette', 0.0342, 1.69],
    ['paletteEven', 0.0329, 2.28],
    ['strangers', 0.0399, 2.75],
    ['missing', 0.0138, 4.4],
    ['ground', 0.0258, 0.561],
    ['chroma', 0.0153, 3.92],
    ['hue', 0.0414, 1.92],
    ['inks', 0.287, 0.111],
    ['warmth', 0.0117, 2.36],
  ],
  light: [
    ['tone', 0.0645, 1.29],
    ['spread', 0.0516, 2.53],
    ['darkest', 0.0512, 2.23],
    ['contrast', 0.0519, 1.81],
    ['bimodality', 0.115, 0.401],
    ['paper', 0.00459, 20.7],
  ],
  line: [
    ['edge', 0.327, 0.194],
    ['sharpness', 0.0137, 3.97],
    ['dark', 0.358, 0.0877],
    ['light', 0.335, 0.103],
    ['darkShape', 0.0565, 0.621],
    ['lightShape', 0.0572, 0.509],
    ['width', 0.187, 0.281],
    ['raggedness', 0.109, 0.476],
    ['coherence', 0.0769, 1.02],
    ['agreement', 0.139, 0.261],
    ['direction', 0.0319, 0.422],
  ],
  texture: [
    ['bands', 0.191, 0.199],
    ['bandShape', 0.0211, 1.44],
    ['chromaBands', 0.209, 0.162],
    ['flatness', 0.0937, 0.869],
    ['softness', 0.0554, 0.855],
    ['grain', 0.3, 0.0817],
    ['along', 0.289, 0.166],
    ['across', 0.255, 0.173],
    ['run', 0.0943, 0.494],
    ['jitter', 0.261, 0.0869],
    ['shadow', 0.00157, 9.39],
    ['period', 0.0868, 0.239],
    ['dots', 0.0206, 1.27],
  ],
};
