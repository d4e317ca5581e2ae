import { NO_TREATMENT } from '@zinc/core';
import { howMade, veilOf } from './describe';

describe('describing references', () => {
  it('says how a variant was made, in the order it was', () => {
    const treatment = { ...NO_TREATMENT, roller: 40, grain: -30 };
    expect(howMade({ crop: { x: 0, y: 0, width: 1, height: 0.5 }, treatment, paintOut: [{ points: [0, 0], size: 0.1 }] })).toBe(
      'painted out, cropped, dry roller 40 %, grain turned -30°',
    );
    expect(howMade({})).toBe('');
  });

  it('veils what does not matter', () => {
    const { pixels } = veilOf({ width: 2, height: 1, data: Float32Array.of(0, 1) });
    expect([...pixels]).toEqual([0, 0, 0, 235, 0, 0, 0, 0]);
  });
});
