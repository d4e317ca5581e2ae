import type { Capabilities } from '@zinc/contract';
import { PAINTER_VERSION } from '@zinc/core';
import { SUBJECTS } from '@zinc/scenes';

/** What this press says of itself. It draws and paints by its own code and is no trained model. */
export function capabilities(threads: number): Capabilities {
  return {
    name: 'House press',
    version: '1.0.0',
    models: ['drawn subjects'],
    painterVersion: PAINTER_VERSION,
    repeatable: true,
    limits: { leastSide: 64, mostSide: 2048, mostContents: 1 },
    settings: [
      {
        key: 'strength',
        type: 'percent',
        label: 'Strength',
        help: 'How far the look is carried into the image.',
        from: 0,
        to: 100,
        choices: [],
        default: 70,
      },
    ],
    facets: ['colour', 'light', 'line', 'texture'],
    abilities: ['restyle'],
    draws: SUBJECTS.map(s => s.name),
    pricePerImage: 0,
    atOnce: threads,
  };
}
