import { normaliseShares } from '../measure/palette.ts';
import { clampAmounts } from '../mix/inferStyle.ts';
import { STYLE_FIELDS, type Style, type StyleAmounts, type StyleField } from '../mix/style.ts';
import { randomFor } from '../number/random.ts';
import { clamp } from '../number/scalar.ts';
import { exp } from '../number/trig.ts';

/** How far an offshoot goes from what it came from, each 0–1. */
export interface Apart {
  /** How a thing stands. */
  pose: number;
  /** What it is like: another of its kind. */
  kind: number;
  /** Sizes and angles of marks, and areas of colours, within its look. */
  manner: number;
}

/**
 * What a distance of 0–100 sets free. Near, only the marks fall otherwise; then the thing stands otherwise; far off it is another of its
 * kind, and its look is taken more freely.
 */
export function apart(distance: number): Apart {
  const from = (start: number, end: number): number => clamp((distance - start) / (end - start), 0, 1);
  return { pose: from(5, 60), kind: from(40, 100), manner: from(50, 100) };
}

/** Share of its range by which a size or angle may move, and factor by which the area of a colour may. */
const MOST_MOVED = 0.16;
const MOST_AREA = 0.6;

/** The same style with sizes and angles of marks and the areas of colours moved a little, as far as `amount` 0–1 says; its colours stay. */
export function varyStyle(style: Style, seed: number, amount: number): Style {
  if (amount <= 0) return style;
  const random = randomFor(seed, 'offshoot');
  const amounts: StyleAmounts = { ...style.amounts };
  for (const [key, field] of Object.entries(STYLE_FIELDS) as [StyleField, (typeof STYLE_FIELDS)[StyleField]][]) {
    // Every field draws its number, so that none depends on which others are in use.
    const turn = random() - 0.5;
    if ('owner' in field) amounts[key] += turn * 2 * amount * MOST_MOVED * (field.to - field.from);
  }
  const palette = style.palette.map(c => ({ ...c, share: c.share * exp((random() - 0.5) * 2 * amount * MOST_AREA) }));
  return { ...style, amounts: clampAmounts(amounts), palette: palette.length > 0 ? normaliseShares(palette) : palette };
}
