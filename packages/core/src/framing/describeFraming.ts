import { isFramed, type Framing } from './types.ts';

/** A framing in plain words: margins, corners, how the thing sits. Empty when there is nothing to take. */
export function describeFraming(f: Framing): string {
  if (!isFramed(f)) return '';
  const [top, right, bottom, left] = f.margins;
  const mean = (top + right + bottom + left) / 4;
  const words: string[] = [];
  if (mean > 0) {
    const more = Math.max(top, right, bottom, left);
    const side = (['above', 'on the right', 'below', 'on the left'] as const)[f.margins.indexOf(more)];
    words.push(`${mean < 0.04 ? 'narrow' : mean < 0.1 ? 'clear' : 'wide'} margins${more > 1.5 * mean ? `, most ${side}` : ''}`);
  }
  if (f.corner > 0) words.push(f.corner > 0.3 ? 'very round corners' : 'round corners');
  if (f.seat) words.push(`the thing fills ${Math.round(f.seat.size * 100)} %${placeOf(f.seat)}`);
  return words.join(', ');
}

function placeOf({ x, y }: { x: number; y: number }): string {
  const up = y < 0.42 ? 'high' : y > 0.58 ? 'low' : '';
  const side = x < 0.42 ? 'left' : x > 0.58 ? 'right' : '';
  return up || side ? `, ${[up, side].filter(Boolean).join(' and ')}` : '';
}
