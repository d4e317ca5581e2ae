import { drift } from '../drift/drift.ts';
import { measure } from '../measure/measure.ts';
import { FACETS } from '../measure/types.ts';
import { toLabPlanes } from '../colour/oklab.ts';
import type { LabPlanes } from '../image/types.ts';
import { mix, MixError } from '../mix/mix.ts';
import type { Style, StyleAmounts } from '../mix/style.ts';
import { settle } from '../paint/settle.ts';
import { paint } from '../paint/paint.ts';
import { pictureOf, sampleContent, stripes } from '../testPictures.ts';
import { bindingSheet, bindStyle, SHARES, type Share } from './bind.ts';
import { barycentreOf, cohesionOf } from './cohesion.ts';
import { matchToSet } from './pull.ts';

const look = mix([{ parts: 1, facets: [...FACETS], fingerprint: measure(sampleContent(384, 40)) }]);
const contents = [1, 2, 3, 4].map(seed => sampleContent(256, seed));

const mean = (plane: Float32Array): number => plane.reduce((sum, v) => sum + v, 0) / plane.length;

describe('a set', () => {
  it('of one picture lies on its own barycentre; of like pictures near it; of unlike far', () => {
    const f = contents.map(measure);
    expect(cohesionOf([f[0]]).total).toBeLessThan(0.01);
    const like = cohesionOf([f[0], f[0], f[0]]);
    expect(like.total).toBeLessThan(0.02);
    expect(cohesionOf([f[0], measure(stripes(256, 6, 0.4))]).total).toBeGreaterThan(like.total + 0.1);
  });
  it('has no barycentre when it is empty', () => {
    expect(() => barycentreOf([])).toThrowError(MixError);
  });
  it('keeps one light the more strongly it is bound', () => {
    const previews = contents.map((c, i) => measure(paint(c, look.style, 1, i)));
    const sheet = bindingSheet(previews);
    const at = (amount: number): number =>
      cohesionOf(contents.map((c, i) => measure(paint(c, look.style, 1, i, { bind: { sheet, amount } })))).light;
    expect(at(1)).toBeLessThan(at(0) * 0.8);
  });
  it('follows an anchor', () => {
    const anchor = measure(
      paint(
        pictureOf(256, 256, x => (x < 128 ? [30, 40, 90] : [240, 200, 60])),
        look.style,
        1,
        9,
      ),
    );
    const sheet = bindingSheet([], ['palette', 'light'], anchor);
    expect(sheet.from).toBe('anchor');
    expect(sheet.target).toEqual({ ...anchor, swatch: null });
    const shared = { free: 0, bound: 0 };
    for (const content of contents.slice(0, 3)) {
      const free = drift(measure(paint(content, look.style, 1, 5)), anchor);
      const bound = drift(measure(paint(content, look.style, 1, 5, { bind: { sheet, amount: 1 } })), anchor);
      expect(bound.total).toBeLessThan(free.total);
      shared.free += free.colour + free.light;
      shared.bound += bound.colour + bound.light;
    }
    expect(shared.bound).toBeLessThan(shared.free * 0.85);
  });
  it('not bound at all changes nothing; a share that is not wanted leaves its side alone', () => {
    const sheet = bindingSheet(contents.map(measure), ['light']);
    const free = paint(contents[0], look.style, 1, 3);
    expect(paint(contents[0], look.style, 1, 3, { bind: { sheet, amount: 0 } }).data).toEqual(free.data);
    expect(bindStyle(look.style, sheet)).toBe(look.style);
    const tried: StyleAmounts[] = [];
    const planes = toLabPlanes(contents[0]);
    settle(style => (tried.push(style.amounts), planes), look.style, sheet, 1);
    const { toneAmount, ...rest } = look.style.amounts;
    expect(tried.some(t => t.toneAmount !== toneAmount)).toBeTrue();
    for (const { toneAmount: _, ...others } of tried) expect(others).toEqual(rest);
  });
  it('that shares its ground brings no backdrop of a photograph in at less than full strength, unless that is to be kept', () => {
    // A light thing before a dark wall; the look has a light ground.
    const photo = pictureOf(160, 160, (x, y) => (Math.hypot(x - 80, y - 80) < 38 ? [225, 190, 60] : [52, 58, 70]));
    const target = bindingSheet(contents.map((c, i) => measure(paint(c, look.style, 1, i))));
    const corner = (share: readonly Share[], ground = 0): number => {
      const bind = { sheet: { ...target, share: [...share] }, amount: 1 };
      const painted = toLabPlanes(paint(photo, look.style, 0.6, 3, { bind, fidelity: { subject: 0, ground } }));
      return mean(painted.L.subarray(0, 160 * 20));
    };
    const full = mean(toLabPlanes(paint(photo, look.style, 1, 3)).L.subarray(0, 160 * 20));
    const without = corner(['palette', 'light', 'line', 'texture']);
    expect(Math.abs(corner(SHARES) - full)).toBeLessThan(0.04);
    expect(Math.abs(without - full)).toBeGreaterThan(0.1);
    expect(Math.abs(corner(SHARES, 1) - corner(['palette'], 1))).toBeLessThan(0.03);
  });
  it('settles part of the way when it is bound in part', () => {
    const sheet = bindingSheet(contents.map(c => measure(paint(c, look.style, 1, 1))));
    const render = (style: Style): LabPlanes => toLabPlanes(paint(contents[1], style, 1, 2));
    const whole = settle(render, look.style, sheet, 1).style.amounts;
    const half = settle(render, look.style, sheet, 0.5).style.amounts;
    for (const key of Object.keys(whole) as (keyof StyleAmounts)[])
      expect(half[key]).toBeCloseTo((whole[key] + look.style.amounts[key]) / 2, 9);
  });
  it('takes a stranger in: matched to the set it lies nearer to it', () => {
    const target = barycentreOf(contents.map(measure));
    const stranger = pictureOf(256, 256, (x, y) => [60 + ((x * y) % 90), 70, 90 + (x % 60)]);
    const before = drift(measure(stranger), target).total;
    const after = drift(measure(matchToSet(stranger, target, 1)), target).total;
    expect(after).toBeLessThan(before);
    expect(
      [...matchToSet(stranger, target, 0).data.slice(0, 40)].every((v, i) => Math.abs(v - stranger.data[i]) <= 1),
    ).toBeTrue();
  });
});
