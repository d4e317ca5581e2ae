import type { Random } from '@zinc/core/number/random';

/** Side of every made-up reference, in pixels. */
export const SIDE = 900;

/** A pointed leaf from (x, y) along `angle`, as an SVG path. */
export function leaf(x: number, y: number, angle: number, length: number, half: number): string {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const p = (u: number, v: number): string => `${(x + u * c - v * s).toFixed(1)} ${(y + u * s + v * c).toFixed(1)}`;
  return `M${p(0, 0)} C${p(length * 0.3, half)} ${p(length * 0.7, half)} ${p(length, 0)} C${p(length * 0.7, -half)} ${p(length * 0.3, -half)} ${p(0, 0)}Z`;
}

/** A closed, wobbling round shape. */
export function pebble(random: Random, x: number, y: number, radius: number, corners = 9, wobble = 0.3): string {
  const points = Array.from({ length: corners }, (_, i) => {
    const a = (i / corners) * 2 * Math.PI;
    const r = radius * (1 - wobble / 2 + random() * wobble);
    return [x + Math.cos(a) * r, y + Math.sin(a) * r];
  });
  const middle = (i: number): number[] => {
    const p = points[(i + corners) % corners];
    const q = points[(i + 1) % corners];
    return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  };
  const start = middle(-1);
  let d = `M${start[0].toFixed(1)} ${start[1].toFixed(1)}`;
  points.forEach((p, i) => {
    const m = middle(i);
    d += `Q${p[0].toFixed(1)} ${p[1].toFixed(1)} ${m[0].toFixed(1)} ${m[1].toFixed(1)}`;
  });
  return `${d}Z`;
}

/** Many short spindles in one path: cuts, chatter, dry strokes. */
export function spindles(random: Random, count: number, angle: () => number, length: () => number, half: () => number): string {
  let d = '';
  for (let i = 0; i < count; i++) d += leaf(random() * SIDE, random() * SIDE, angle(), length(), half());
  return d;
}

export function svg(body: string, defs = ''): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}" viewBox="0 0 ${SIDE} ${SIDE}"><defs>${defs}</defs>${body}</svg>`;
}

/** A made-up picture laid on a sheet: margins above, beside and below, and round corners, all in parts of the side. */
export function onMount(
  picture: string,
  sheet: string,
  margins: { top: number; side: number; below: number },
  corner: number,
): string {
  const [x, y] = [margins.side * SIDE, margins.top * SIDE];
  const [width, height] = [SIDE - 2 * x, SIDE - y - margins.below * SIDE];
  const box = `x="${x}" y="${y}" width="${width}" height="${height}"`;
  const inner = picture.replace(
    /^<svg [^>]*>/,
    `<svg ${box} viewBox="0 0 ${SIDE} ${SIDE}" preserveAspectRatio="xMidYMid slice">`,
  );
  return svg(
    `<rect width="${SIDE}" height="${SIDE}" fill="${sheet}"/><g clip-path="url(#mount)">${inner}</g>`,
    `<clipPath id="mount"><rect ${box} rx="${corner * width}"/></clipPath>`,
  );
}

/** A filter that lets edges wander by up to `reach` pixels. */
export function wander(id: string, frequency: number, reach: number, seed: number): string {
  return `<filter id="${id}" x="-5%" y="-5%" width="110%" height="110%"><feTurbulence type="fractalNoise" baseFrequency="${frequency}" numOctaves="3" seed="${seed}"/><feDisplacementMap in="SourceGraphic" scale="${reach}"/></filter>`;
}
