import { toLabPlanes } from '../colour/oklab.ts';
import { drift } from '../drift/drift.ts';
import { measurePlanes } from '../measure/measure.ts';
import { sampleContent, stripes } from '../testPictures.ts';
import { mixPlanes } from './planes.ts';
import { equalSteps, placeAt, strengthStops } from './strength.ts';

const PLACES = [0, 0.1, 0.25, 0.45, 0.65, 0.84, 1];
const tableOf = (far: (p: number, q: number) => number): number[][] => PLACES.map(p => PLACES.map(q => far(p, q)));

describe('equal steps', () => {
  it('of a length are equal parts', () => {
    equalSteps(
      PLACES,
      tableOf((p, q) => Math.abs(p - q)),
    ).forEach((v, k) => expect(v).toBeCloseTo(k / 5, 4));
  });
  it('come early where most of the change is early, and never turn back', () => {
    const curve = (t: number): number => 1 - (1 - t) * (1 - t);
    const stops = equalSteps(
      PLACES,
      tableOf((p, q) => Math.abs(curve(p) - curve(q))),
    );
    expect(stops[0]).toBe(0);
    expect(stops[5]).toBe(1);
    stops.slice(1).forEach((v, k) => expect(v).toBeGreaterThan(stops[k]));
    expect(stops[1]).toBeLessThan(0.13);
    const steps = stops.slice(1).map((v, k) => curve(v) - curve(stops[k]));
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.25);
  });
  it('hold for a measure that counts small differences by their square', () => {
    const far = (p: number, q: number): number => (p - q) ** 2 / (Math.abs(p - q) + 0.1);
    const stops = equalSteps(PLACES, tableOf(far));
    const steps = stops.slice(1).map((v, k) => far(v, stops[k]));
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.6);
  });
});

describe('even strength', () => {
  const own = toLabPlanes(sampleContent(128, 3));
  const painted = toLabPlanes(stripes(128, 8, 0.6));
  const stops = strengthStops(own, painted);
  it('stops at places that lie equally far apart', () => {
    const seen = [0, 0.2, 0.4, 0.6, 0.8, 1].map(s => measurePlanes(mixPlanes(own, painted, s && placeAt(stops, s))));
    const steps = seen.slice(1).map((f, k) => drift(seen[k], f).total);
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(2);
  });
  it('grows with strength and ends at the painting', () => {
    const at = [0.1, 0.3, 0.5, 0.7, 0.9, 1].map(s => placeAt(stops, s));
    at.slice(1).forEach((v, k) => expect(v).toBeGreaterThan(at[k]));
    expect(at[5]).toBeCloseTo(1, 9);
  });
  it('of a painting equal to its content is the strength itself', () => {
    expect(placeAt(strengthStops(own, own), 0.4)).toBe(0.4);
  });
});
