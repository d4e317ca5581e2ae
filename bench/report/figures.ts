import {
  cohesionOf,
  bindingSheet,
  deltaE2000,
  drift,
  driftOver,
  FACETS,
  kinship,
  labOfHex,
  likeness,
  measure,
  mix,
  paint,
  type Facet,
  type Fingerprint,
  type Kinship,
  type Picture,
} from '@zinc/core';
import { GOLDEN_PAINTINGS } from '@zinc/scenes/golden';
import type { Content } from './contents.ts';
import type { Reference } from './references.ts';

/** One painting of the judging set, measured. */
export interface Painted {
  reference: Reference;
  content: Content;
  fingerprint: Fingerprint;
}

export interface Figure {
  name: string;
  study: string;
  aim: string;
  value: string;
  met: boolean;
}

const mean = (values: number[]): number => values.reduce((s, v) => s + v, 0) / Math.max(1, values.length);
const styleOf = (r: Reference): ReturnType<typeof mix>['style'] =>
  mix([{ parts: 1, facets: [...FACETS], fingerprint: r.fingerprint }]).style;

export function paintAll(references: Reference[], contents: Content[], say: (text: string) => void): Painted[] {
  const out: Painted[] = [];
  for (const reference of references) {
    const style = styleOf(reference);
    for (const [i, content] of contents.entries())
      out.push({ reference, content, fingerprint: measure(paint(content.picture, style, 1, 100 + i, content.options)) });
    say(`  ${reference.name}`);
  }
  return out;
}

/** Wilson's interval for a share, 95 %. */
function interval(hits: number, n: number): string {
  const z = 1.96;
  const p = hits / n;
  const middle = (p + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  return `${(100 * (middle - half)).toFixed(0)}–${(100 * (middle + half)).toFixed(0)} %`;
}

/** Is the reference nearest to a painting the one it was painted from? */
export function nearestOwn(painted: Painted[], references: Reference[]): Figure[] {
  let own = 0;
  let family = 0;
  for (const p of painted) {
    const nearest = references.reduce((best, r) =>
      drift(p.fingerprint, r.fingerprint).total < drift(p.fingerprint, best.fingerprint).total ? r : best,
    );
    if (nearest === p.reference) own++;
    if (nearest.family === p.reference.family) family++;
  }
  const n = painted.length;
  return [
    {
      name: `nearest reference of a painting is its own (${n}, held out)`,
      study: '12/20',
      aim: '≥ 95 %',
      value: `${own}/${n} = ${((100 * own) / n).toFixed(1)} % (${interval(own, n)})`,
      met: own / n >= 0.95,
    },
    {
      name: 'the same, medium right',
      study: 'not measured',
      aim: '–',
      value: `${((100 * family) / n).toFixed(1)} %`,
      met: true,
    },
  ];
}

/** Mean drift between paintings of unlike looks ÷ of one look, for subjects and for photographs. */
export function separation(painted: Painted[]): Figure[] {
  return (['subject', 'photo'] as const).map(kind => {
    const some = painted.filter(p => p.content.kind === kind);
    const within: number[] = [];
    const between: number[] = [];
    for (let i = 0; i < some.length; i++)
      for (let j = i + 1; j < some.length; j++) {
        const d = drift(some[i].fingerprint, some[j].fingerprint).total;
        if (some[i].reference === some[j].reference) within.push(d);
        else if (some[i].reference.family !== some[j].reference.family) between.push(d);
      }
    const ratio = mean(between) / mean(within);
    return {
      name: `between ÷ within looks, ${kind === 'photo' ? 'photographs' : 'subjects'}`,
      study: kind === 'photo' ? '1.5' : '2.1',
      aim: '≥ 4',
      value: `${ratio.toFixed(2)} (${mean(between).toFixed(2)} ÷ ${mean(within).toFixed(2)})`,
      met: ratio >= 4,
    };
  });
}

/** Share of pairs of each label whose kinship is what the label says. */
export function labels(painted: Painted[]): Figure {
  const right: Record<Kinship, [number, number]> = { same: [0, 0], close: [0, 0], other: [0, 0] };
  for (let i = 0; i < painted.length; i++)
    for (let j = i + 1; j < painted.length; j += 3) {
      const [p, q] = [painted[i], painted[j]];
      const label: Kinship = p.reference === q.reference ? 'same' : p.reference.family === q.reference.family ? 'close' : 'other';
      right[label][1]++;
      if (kinship(drift(p.fingerprint, q.fingerprint)) === label) right[label][0]++;
    }
  const part = (k: Kinship): string => `${k} ${((100 * right[k][0]) / Math.max(1, right[k][1])).toFixed(0)} %`;
  return {
    name: 'labelled pairs told right: same / close / other',
    study: 'not measured',
    aim: '–',
    value: `${part('same')}, ${part('close')}, ${part('other')}`,
    met: true,
  };
}

/** Does drift to the target fall from the bare content to the painting? */
export function falls(painted: Painted[], own: Map<Content, Fingerprint>): Figure[] {
  const count = (facet: Facet | 'total'): Figure => {
    const fallen = painted.filter(
      p => drift(p.fingerprint, p.reference.fingerprint)[facet] < drift(own.get(p.content)!, p.reference.fingerprint)[facet],
    ).length;
    return {
      name: `drift to target falls from strength 0 to 1: ${facet}`,
      study: facet === 'total' ? '3 of 5 looks' : 'not measured',
      aim: 'all',
      value: `${fallen}/${painted.length}`,
      met: fallen === painted.length,
    };
  };
  return (['total', ...FACETS] as const).map(count);
}

/** Largest ÷ smallest step of measured change over five equal steps of strength; the worst of several. */
export function evenSteps(references: Reference[], contents: Content[]): Figure {
  const ratios: number[] = [];
  for (const [k, reference] of references.entries()) {
    const content = contents[k % contents.length];
    const style = styleOf(reference);
    const seen = [0, 0.2, 0.4, 0.6, 0.8, 1].map(s => measure(paint(content.picture, style, s, 7, content.options)));
    const steps = seen.slice(1).map((f, i) => drift(seen[i], f).total);
    ratios.push(Math.max(...steps) / Math.min(...steps));
  }
  ratios.sort((p, q) => p - q);
  return {
    name: 'largest ÷ smallest of five steps of strength',
    study: 'not measured',
    aim: '≤ 2',
    value: `median ${ratios[ratios.length >> 1].toFixed(2)}, worst ${ratios[ratios.length - 1].toFixed(2)} of ${ratios.length}`,
    met: ratios[ratios.length - 1] <= 2,
  };
}

/** Mean distance of a set to its barycentre, bound wholly ÷ not at all. */
export function binding(references: Reference[], contents: Content[]): Figure {
  const ratios = references.map(reference => {
    const style = styleOf(reference);
    const set = (bind?: { sheet: ReturnType<typeof bindingSheet>; amount: number }): Fingerprint[] =>
      contents.map((c, i) => measure(paint(c.picture, style, 1, i, { ...c.options, bind })));
    const free = set();
    const sheet = bindingSheet(free);
    return cohesionOf(set({ sheet, amount: 1 })).total / cohesionOf(free).total;
  });
  return {
    name: 'bind 0 → 100 %: distance to barycentre',
    study: '–',
    aim: '≤ half',
    value: `× ${mean(ratios).toFixed(2)} (${ratios.map(r => r.toFixed(2)).join(', ')})`,
    met: mean(ratios) <= 0.5,
  };
}

export function fidelity(references: Reference[], photos: Content[]): Figure {
  const kept: number[] = [];
  const moved: number[] = [];
  for (const [k, reference] of references.entries()) {
    const { picture } = photos[k % photos.length];
    const out = paint(picture, styleOf(reference), 1, 5, { fidelity: { subject: 0.9, ground: 0.9 } });
    kept.push(likeness(picture, out));
    moved.push(driftOver(drift(measure(out), measure(picture)), ['colour', 'texture']));
  }
  return {
    name: 'likeness at fidelity 90 % on photographs',
    study: '–',
    aim: '≥ .85, look visible',
    value: `least ${Math.min(...kept).toFixed(3)}, mean ${mean(kept).toFixed(3)}; drift from the photograph ${mean(moved).toFixed(2)}`,
    met: Math.min(...kept) >= 0.85 && mean(moved) > 0.3,
  };
}

/** CIELAB (D65) of an 8-bit sRGB colour; IEC 61966-2-1 and CIE 15. */
function cielab(r: number, g: number, b: number): [number, number, number] {
  const linear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
  const [R, G, B] = [r, g, b].map(v => linear(v / 255));
  const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);
  const x = f((0.4124564 * R + 0.3575761 * G + 0.1804375 * B) / 0.95047);
  const y = f(0.2126729 * R + 0.7151522 * G + 0.072175 * B);
  const z = f((0.0193339 * R + 0.119192 * G + 0.9503041 * B) / 1.08883);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** Area within ΔE2000 8 of a colour that must never be seen, though it is asked for by the palette and there in the content. */
export function never(references: Reference[], content: Picture): Figure {
  const violet = labOfHex('#6a3fb5');
  const wanted = cielab(0x6a, 0x3f, 0xb5);
  let worst = 0;
  for (const reference of references)
    for (const strength of [0.4, 1]) {
      const style = styleOf(reference);
      const out = paint(content, { ...style, palette: [...style.palette, { ...violet, share: 0.2 }] }, strength, 3, {
        never: [{ ...violet, radius: 0.12 }],
      });
      let seen = 0;
      for (let i = 0; i < out.data.length; i += 4)
        if (deltaE2000(cielab(out.data[i], out.data[i + 1], out.data[i + 2]), wanted) < 8) seen++;
      worst = Math.max(worst, seen / (out.data.length / 4));
    }
  return {
    name: 'never colour left in the painting (ΔE2000 < 8)',
    study: '–',
    aim: '< 0.1 % of area',
    value: `worst ${(100 * worst).toFixed(3)} %`,
    met: worst < 0.001,
  };
}

export function goldens(kept: Record<string, string>): Figure {
  const same = GOLDEN_PAINTINGS.filter(g => g.paint() === kept[g.name]).length;
  return {
    name: 'golden paintings unchanged in Node (Chromium: web tests)',
    study: '–',
    aim: 'all',
    value: `${same}/${GOLDEN_PAINTINGS.length}`,
    met: same === GOLDEN_PAINTINGS.length,
  };
}
