import { labOfHex } from '../colour/oklab.ts';
import { pictureOf, sampleContent } from '../testPictures.ts';
import { resizePicture } from '../image/resize.ts';
import type { Picture } from '../image/types.ts';
import { echoesOf } from './echo.ts';
import { kinship, THRESHOLDS } from './kinship.ts';
import { leakOf } from './leak.ts';

const red = labOfHex('#c2263a');
const green = labOfHex('#5a8f45');
const paper = labOfHex('#f3eee2');

describe('leak', () => {
  const picture = pictureOf(120, 120, (x, y) => (x < 24 && y < 24 ? [194, 38, 58] : x > 90 ? [90, 143, 69] : [243, 238, 226]));
  it('finds how much of a source’s colour is there, and where', () => {
    const { share, places } = leakOf(picture, [red], [green, paper]);
    expect(share).toBeCloseTo(0.04, 2);
    expect(places[0].x).toBeLessThan(0.2);
    expect(places[0].y).toBeLessThan(0.2);
    // Only the worst places are listed.
    const listed = places.reduce((s, p) => s + p.share, 0);
    expect(listed).toBeLessThanOrEqual(share);
    expect(listed).toBeGreaterThan(0.7 * share);
  });
  it('is nothing for a colour that is wanted, or that is not there', () => {
    expect(leakOf(picture, [red], [red, green, paper])).toEqual({ share: 0, places: [] });
    expect(leakOf(picture, [labOfHex('#2a3a60')], [red, green, paper]).share).toBe(0);
  });
});

describe('echo', () => {
  const source = sampleContent(256, 3);
  /** A piece of one picture set into another. */
  function setInto(into: Picture, from: Picture, sx: number, sy: number, side: number, tx: number, ty: number): Picture {
    const out = { ...into, data: into.data.slice() };
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) {
        const p = ((sy + y) * from.width + sx + x) * 4;
        out.data.set(from.data.subarray(p, p + 4), ((ty + y) * out.width + tx + x) * 4);
      }
    return out;
  }
  it('finds a piece of the source where it was set in', () => {
    const ground = pictureOf(256, 256, (x, y) => [200 + ((x * 7 + y * 3) % 11), 196, 188]);
    const echoes = echoesOf(setInto(ground, source, 40, 60, 140, 90, 30), source);
    expect(echoes.length).toBeGreaterThan(0);
    const { here, there, match } = echoes[0];
    expect(match).toBeGreaterThan(0.9);
    expect(here.x - there.x).toBeCloseTo((90 - 40) / 256, 1);
    expect(here.y - there.y).toBeCloseTo((30 - 60) / 256, 1);
  });
  it('finds none between pictures that share nothing', () => {
    expect(
      echoesOf(
        pictureOf(200, 120, (x, y) => [(x * 37 + y * 91) % 255, 90, (x * 13) % 200]),
        source,
      ),
    ).toEqual([]);
    expect(
      echoesOf(
        pictureOf(64, 64, () => [120, 120, 120]),
        source,
      ),
    ).toEqual([]);
  });
  it('finds the whole of a picture in itself, at another size', () => {
    const echoes = echoesOf(resizePicture(source, 180, 180), source);
    expect(echoes[0].here.width).toBeGreaterThan(0.6);
  });
});

describe('kinship', () => {
  it('has three kinds, parted by two thresholds', () => {
    expect(THRESHOLDS.same).toBeLessThan(THRESHOLDS.close);
    expect(kinship({ total: 0 })).toBe('same');
    expect(kinship({ total: (THRESHOLDS.same + THRESHOLDS.close) / 2 })).toBe('close');
    expect(kinship({ total: 2 })).toBe('other');
  });
});
