import { drift, driftOver } from '../drift/drift.ts';
import type { LabPlanes } from '../image/types.ts';
import { measurePlanes } from '../measure/measure.ts';
import type { Facet, Fingerprint } from '../measure/types.ts';
import { STYLE_FIELDS, type Style, type StyleField } from '../mix/style.ts';
import { lerp } from '../number/scalar.ts';
import { boundFacets, bindStyle, type BindingSheet } from '../set/bind.ts';
import { NO_PULLS, pullTowards, type Pulls } from '../set/pull.ts';

/**
 * Settings that a bound picture may be painted with otherwise than the rest, and how far (in their own units) they are tried to either side;
 * those that brought sets of the tuning contents together most come first.
 */
const TRIED: readonly [StyleField, number][] = [
  ['smooth', 1.3],
  ['shareAmount', 0.8],
  ['toneAmount', 0.35],
  ['brushJitter', 0.3],
  ['edgeKeep', 0.4],
  ['groundWork', 0.3],
  ['hueKeep', 0.3],
  ['wobble', 0.4],
  ['brushLength', 2.5],
  ['wash', 0.25],
  ['flat', 0.2],
  ['dotGap', 0.5],
  ['shadow', 0.3],
  ['outlineWidth', 0.5],
];
/** Beyond 1 the shares of the inks weigh more than hue and tone do. */
const MOST_SHARES = 3;
/** The first of them are tried finely. */
const STRONG = 4;
/** A picture this near to its sheet is not moved any more. */
const NEAR = 0.03;
/** What a change must bring to be kept. */
const WORTH = 0.002;

/** How a picture of a bound set is to be painted. */
export interface Settled {
  style: Style;
  pulls: Pulls;
}

/**
 * Second phase of binding: looks for settings with which this picture comes nearest to the set's sheet, over the facets that the set shares,
 * by trying one after the other on small paintings (`render` makes one); then goes `amount` 0–1 of the way to them.
 */
export function settle(render: (style: Style) => LabPlanes, style: Style, sheet: BindingSheet, amount: number): Settled {
  if (amount <= 0) return { style, pulls: NO_PULLS };
  const facets = boundFacets(sheet);
  const distance = (f: Fingerprint): number => driftOver(drift(f, sheet.target), facets);
  let planes = render(style);
  const free = measurePlanes(planes);
  // Ink laid over bare sheet may bring a picture nearer to the middle of its set in figures, but sets it apart to the eye.
  const leastBare = sheet.from === 'anchor' ? 0 : free.light.bare - 0.08;
  let best = distance(free);
  let now = style;
  const attempt = (next: Style): boolean => {
    const painted = render(next);
    const seen = measurePlanes(painted);
    const far = distance(seen);
    if (far > best - WORTH || seen.light.bare < leastBare) return false;
    [planes, best, now] = [painted, far, next];
    return true;
  };
  const full = bindStyle(style, sheet);
  if (full !== style) attempt(full);
  const turn = (field: StyleField, by: number): boolean => {
    const { from, to } = STYLE_FIELDS[field];
    const most = field === 'shareAmount' ? MOST_SHARES : to;
    const value = Math.min(most, Math.max(from, now.amounts[field] + by));
    return value !== now.amounts[field] && attempt({ ...now, amounts: { ...now.amounts, [field]: value } });
  };
  for (const [k, [field, reach]] of TRIED.entries()) {
    if (best < NEAR) break;
    if (!isOpen(style, field, facets)) continue;
    // What helps is gone on with; of the strongest, what does not help at all is tried once more with a smaller step.
    const way = [1, -1].find(sign => turn(field, sign * reach));
    if (way) turn(field, way * reach);
    else if (k < STRONG && !turn(field, reach * 0.4)) turn(field, -reach * 0.4);
  }
  let pulls = NO_PULLS;
  for (const name of ['light', 'chroma'] as const) {
    if (!facets.includes(name === 'light' ? 'light' : 'colour')) continue;
    for (const pull of [1, 0.5]) {
      const next = { ...pulls, [name]: pull };
      const moved = { ...planes, L: planes.L.slice(), a: planes.a.slice(), b: planes.b.slice() };
      pullTowards(moved, sheet.target, next);
      const far = distance(measurePlanes(moved));
      if (far > best - WORTH) continue;
      [best, pulls] = [far, next];
      break;
    }
  }
  return part(style, now, pulls, amount);
}

/** A setting may be tried when its facet is shared and the marks it speaks about are there. */
function isOpen(style: Style, field: StyleField, facets: readonly Facet[]): boolean {
  const spec: { facet: Facet; owner?: string } = STYLE_FIELDS[field];
  if (!facets.includes(spec.facet)) return false;
  if (field === 'shareAmount' || field === 'hueKeep') return style.palette.length > 1;
  return style.amounts[(spec.owner as StyleField) ?? field] > 0.02;
}

function part(from: Style, to: Style, pulls: Pulls, amount: number): Settled {
  const amounts = { ...from.amounts };
  for (const key of Object.keys(amounts) as StyleField[]) amounts[key] = lerp(from.amounts[key], to.amounts[key], amount);
  return {
    style: {
      ...from,
      palette: from.palette.map((c, i) => ({
        L: lerp(c.L, to.palette[i].L, amount),
        a: lerp(c.a, to.palette[i].a, amount),
        b: lerp(c.b, to.palette[i].b, amount),
        share: lerp(c.share, to.palette[i].share, amount),
      })),
      amounts,
    },
    pulls: { ...NO_PULLS, light: pulls.light * amount, chroma: pulls.chroma * amount },
  };
}
