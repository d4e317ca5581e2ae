import type { Picture } from '../image/types.ts';
import { randomFor } from '../number/random.ts';
import { labOfHex } from '../colour/oklab.ts';
import { measure } from '../measure/measure.ts';
import { neutralStyle, type Style, type StyleAmounts } from '../mix/style.ts';
import { bindingSheet } from '../set/bind.ts';
import { testTicket } from '../testTickets.ts';
import { drawMask, featherOf, paintInto, removeRegion, RetouchError } from './retouch.ts';
import { type Common, furtherTicket, matchTicket, offshootTicket, retouchTicket } from './tickets.ts';
import { apart, varyStyle } from './vary.ts';

const SIDE = 128;

/** Paper with parallel lines of ink, and a blot in the middle. */
function ruled(blot = true): Picture {
  const data = new Uint8ClampedArray(SIDE * SIDE * 4);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const inBlot = blot && Math.hypot(x - 64, y - 64) < 10;
      const v = inBlot ? 120 : (x + y) % 8 < 3 ? 30 : 235;
      data.set([v, inBlot ? 20 : v, v, 255], (y * SIDE + x) * 4);
    }
  return { width: SIDE, height: SIDE, data };
}

const BLOT = [{ points: [0.5, 0.5], size: 0.2 }];

function changed(p: Picture, q: Picture): number[] {
  const out: number[] = [];
  for (let i = 0; i < p.width * p.height; i++) if ([0, 1, 2, 3].some(c => p.data[i * 4 + c] !== q.data[i * 4 + c])) out.push(i);
  return out;
}

describe('retouch', () => {
  it('draws a mask of strokes, from which those that stay are taken out again', () => {
    const mask = drawMask(64, 64, [
      { points: [0.5, 0.5], size: 0.5 },
      { points: [0.5, 0.5], size: 0.2, stays: true },
    ]);
    const at = (x: number, y: number): number => mask.data[(y * 64 + x) * 4];
    expect([at(32, 32), at(32, 20), at(2, 2)]).toEqual([0, 255, 0]);
  });

  it('refuses a mask over nothing or over everything', () => {
    expect(() => drawMask(64, 64, [{ points: [0.5, 0.5], size: 0.4, stays: true }])).toThrowError(RetouchError, /No region/);
    expect(() => drawMask(64, 64, [{ points: [0, 0.5, 1, 0.5], size: 3 }])).toThrowError(RetouchError, /whole picture/);
  });

  it('touches no pixel beyond the feathered mask, removing or painting again', () => {
    const picture = ruled();
    const random = randomFor(3, 'other');
    const other = {
      ...picture,
      data: Uint8ClampedArray.from(picture.data, (v, i) => (i % 4 === 3 ? v : Math.floor(random() * 256))),
    };
    const mask = drawMask(SIDE, SIDE, BLOT);
    const shown = featherOf(mask);
    for (const made of [removeRegion(picture, mask, 1), paintInto(picture, other, mask)]) {
      const touched = changed(picture, made);
      expect(touched.length).toBeGreaterThan(200);
      expect(touched.filter(i => shown[i] === 0)).toEqual([]);
    }
  });

  it('fades out over a rim that is no wider than it says', () => {
    const mask = drawMask(SIDE, SIDE, BLOT);
    const shown = featherOf(mask);
    const row = Array.from({ length: SIDE }, (_, x) => shown[64 * SIDE + x]);
    expect(row[64]).toBe(1);
    const fading = row.slice(64).filter(v => v > 0 && v < 1);
    expect(fading.length).toBeGreaterThan(0);
    expect(fading.length).toBeLessThan(12);
    expect([...fading].sort((p, q) => q - p)).toEqual(fading);
  });

  it('goes on with the marks around what it removes', () => {
    const without = ruled(false);
    const made = removeRegion(ruled(), drawMask(SIDE, SIDE, BLOT), 1);
    let wrong = 0;
    let of = 0;
    for (let y = 54; y < 74; y++)
      for (let x = 54; x < 74; x++) {
        const i = (y * SIDE + x) * 4;
        of++;
        // Ink or paper, as the lines would have it, and nothing of the blot's colour.
        if (Math.abs(made.data[i] - without.data[i]) > 80 || Math.abs(made.data[i] - made.data[i + 1]) > 40) wrong++;
      }
    expect(wrong / of).toBeLessThan(0.12);
  });

  it('is the same again for the same seed', () => {
    const mask = drawMask(SIDE, SIDE, BLOT);
    expect(removeRegion(ruled(), mask, 7).data).toEqual(removeRegion(ruled(), mask, 7).data);
  });

  it('lays a region of another painting in without a step in tone at its rim', () => {
    const grey = (v: number): Picture => ({
      width: SIDE,
      height: SIDE,
      data: Uint8ClampedArray.from({ length: SIDE * SIDE * 4 }, (_, i) => (i % 4 === 3 ? 255 : v)),
    });
    const made = paintInto(grey(200), grey(120), drawMask(SIDE, SIDE, [{ points: [0.5, 0.5], size: 0.4 }]));
    const row = Array.from({ length: SIDE }, (_, x) => made.data[(64 * SIDE + x) * 4]);
    expect(row[64]).toBeLessThan(124);
    expect(row[2]).toBe(200);
    expect(Math.max(...row.slice(1).map((v, i) => Math.abs(v - row[i])))).toBeLessThan(60);
  });
});

describe('offshoots', () => {
  it('free marks first, then the pose, then the kind and manner', () => {
    expect(apart(3)).toEqual({ pose: 0, kind: 0, manner: 0 });
    const middle = apart(50);
    expect(middle.pose).toBeGreaterThan(0.7);
    expect(middle.manner).toBeLessThan(0.2);
    expect(apart(100)).toEqual({ pose: 1, kind: 1, manner: 1 });
  });

  it('vary a style within its ranges and never its colours', () => {
    const style = {
      ...neutralStyle(),
      palette: [
        { L: 0.9, a: 0, b: 0.02, share: 0.7 },
        { L: 0.3, a: 0.1, b: 0, share: 0.3 },
      ],
    };
    expect(varyStyle(style, 5, 0)).toBe(style);
    const varied = varyStyle(style, 5, 1);
    expect(varied.amounts.hatchAngle).not.toBe(style.amounts.hatchAngle);
    expect(varied.amounts.outline).toBe(style.amounts.outline);
    expect(varied.palette.map(c => [c.L, c.a, c.b])).toEqual(style.palette.map(c => [c.L, c.a, c.b]));
    expect(varied.palette.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 6);
  });
});

describe('tickets of proofs made from others', () => {
  const parent = { proof: 'p', ticket: testTicket() };
  const own = measure(ruled());
  const styleOf = (ink: string, amounts: Partial<StyleAmounts>): Style => ({
    palette: ['#f3eee2', ink].map(c => ({ ...labOfHex(c), share: 0.5 })),
    tone: [],
    amounts: { ...neutralStyle().amounts, ...amounts },
  });
  const set = (): Common => {
    const print = measure(ruled(false));
    return { sheet: bindingSheet([print]), style: styleOf('#2a6450', { hatch: 1, carve: 0 }), strength: 80, print };
  };

  it('say what they come from and change nothing else', () => {
    const { offshoots, parents, take, ...rest } = offshootTicket(parent, 40, 99, 3);
    const { parents: _, take: __, ...before } = parent.ticket;
    expect(rest).toEqual(before);
    expect({ offshoots, parents, take }).toEqual({
      offshoots: [{ seed: 99, distance: 40 }],
      parents: [{ proof: 'p', how: 'offshoot' }],
      take: 3,
    });
  });

  it('begin from the recipe again, not from a retouched picture', () => {
    const retouched = retouchTicket(parent, { picture: 'a', mask: 'b', how: 'again', seed: 1 }, 'no leaf', 2);
    expect(retouched.text.final).toContain('no leaf');
    expect(offshootTicket({ proof: 'q', ticket: retouched }, 10, 4, 3).retouch).toBeUndefined();
    expect(matchTicket({ proof: 'q', ticket: retouched }, own, set(), 80, 3).retouch).toBeUndefined();
  });

  it('go so far towards the style and strength of their set, and keep theirs where it is the same', () => {
    const stray = testTicket();
    stray.look.style = styleOf('#30243a', { carve: 1, hatch: 0 });
    stray.settings.strength = 20;
    const made = matchTicket({ proof: 'p', ticket: stray }, own, set(), 75, 3);
    expect(made.look.style.amounts.carve).toBeCloseTo(0.25);
    expect(made.look.style.amounts.hatch).toBeCloseTo(0.75);
    expect(made.settings.strength).toBe(65);
    expect(made.binding).toEqual({ sheet: set().sheet, amount: 75 });
    expect(made.parents).toEqual([{ proof: 'p', how: 'matched' }]);
    const alike = testTicket();
    alike.look.style = set().style;
    expect(matchTicket({ proof: 'p', ticket: alike }, own, set(), 75, 3).look.style).toEqual(set().style);
    // A look that leaves colours as they are has none to mix.
    expect(matchTicket(parent, own, set(), 75, 3).look.style).toEqual(parent.ticket.look.style);
  });

  it('keep every earlier step of an offshoot of an offshoot', () => {
    const first = offshootTicket(parent, 20, 5, 2);
    expect(offshootTicket({ proof: 'q', ticket: first }, 70, 6, 3).offshoots).toEqual([
      { seed: 5, distance: 20 },
      { seed: 6, distance: 70 },
    ]);
  });

  it('draw anew, for a further take, only what is by chance in them', () => {
    const offshoot = offshootTicket(parent, 20, 5, 2);
    expect(furtherTicket(offshoot, 8, 4)).toEqual({ ...offshoot, take: 4, offshoots: [{ seed: 8, distance: 20 }] });
    expect(furtherTicket(parent.ticket, 8, 4)).toEqual({ ...parent.ticket, take: 4, seed: 8 });
    const retouched = retouchTicket(parent, { picture: 'a', mask: 'b', how: 'remove', seed: 1 }, '', 2);
    expect(furtherTicket(retouched, 8, 4).retouch?.seed).toBe(8);
    expect(furtherTicket(retouched, 8, 4).seed).toBe(parent.ticket.seed);
  });
});
