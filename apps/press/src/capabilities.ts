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
      {
        key: 'adherence',
        type: 'percent',
        label: 'Adherence',
        help: 'How literally words are taken: colour words go as far as this; below 50 %, place, season, light and number are left to the press.',
        from: 0,
        to: 100,
        choices: [],
        default: 100,
      },
      {
        key: 'scatter',
        type: 'percent',
        label: 'Scatter',
        help: 'How unlike each other the takes may stand: at 0 % all of them share one pose.',
        from: 0,
        to: 100,
        choices: [],
        default: 100,
      },
    ],
    facets: ['colour', 'light', 'line', 'texture'],
    abilities: ['restyle', 'bind', 'fidelity', 'clearArea', 'ownColours', 'marks', 'offshoot', 'mask'],
    draws: SUBJECTS.map(s => s.name),
    pricePerImage: 0,
    atOnce: threads,
  };
}
