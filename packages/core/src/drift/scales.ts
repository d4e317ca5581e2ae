import type { Facet } from '../measure/types.ts';
import type { componentsOf } from './components.ts';

type Scale = readonly [name: keyof ReturnType<typeof componentsOf>, noise: number, weight: number];

/**
 * Noise and weight of every difference, found on the tuning set of references (8 families × 3) painted on the tuning contents, which share
 * nothing with the set that drift is judged on. The noise is the mean difference between paintings of one reference, and of those to it. Weights
 * were learnt so that a painting lies nearer to its own reference and to the paintings of it than to others (neighbourhood components;
 * Goldberger et al. 2004), none more than about a third of its facet, and are scaled so that two paintings of unlike references are 1 apart
 * on the mean.
 */
export const SCALES: Record<Facet, readonly Scale[]> = {
  colour: [
    ['palette', 0.0295, 0.683],
    ['paletteEven', 0.032, 0.763],
    ['strangers', 0.0373, 0.768],
    ['missing', 0.0103, 8.11],
    ['ground', 0.0161, 3.19],
    ['chroma', 0.0106, 1.5],
    ['hue', 0.0307, 4.23],
    ['inks', 0.23, 0.0822],
    ['warmth', 0.00634, 4.7],
  ],
  light: [
    ['tone', 0.0422, 0.541],
    ['spread', 0.045, 2.55],
    ['darkest', 0.0402, 2.34],
    ['contrast', 0.0525, 1.12],
    ['bimodality', 0.0806, 0.564],
    ['paper', 0.00384, 27.4],
  ],
  line: [
    ['edge', 0.255, 0.0735],
    ['sharpness', 0.0108, 2.89],
    ['dark', 0.349, 0.124],
    ['light', 0.311, 0.0718],
    ['darkShape', 0.0521, 0.836],
    ['lightShape', 0.0439, 0.703],
    ['width', 0.14, 0.0951],
    ['raggedness', 0.0907, 0.306],
    ['coherence', 0.0679, 0.956],
    ['agreement', 0.14, 0.768],
    ['direction', 0.0261, 1.62],
  ],
  texture: [
    ['bands', 0.164, 0.102],
    ['bandShape', 0.0203, 3.6],
    ['chromaBands', 0.18, 0.418],
    ['flatness', 0.104, 0.162],
    ['softness', 0.0539, 1.14],
    ['grain', 0.11, 0.138],
    ['along', 0.271, 0.0599],
    ['across', 0.177, 0.119],
    ['run', 0.0741, 0.477],
    ['jitter', 0.22, 0.0853],
    ['shadow', 0.00133, 15.9],
    ['period', 0.075, 0.266],
    ['dots', 0.0197, 1.27],
    ['rim', 0.0693, 0.718],
    ['gap', 0.00582, 12.9],
  ],
};
