import type { Random } from '@zinc/core/number/random';
import { leaf, pebble, SIDE, spindles, svg, wander } from './shapes.ts';

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];
const rect = (fill: string): string => `<rect width="${SIDE}" height="${SIDE}" fill="${fill}"/>`;

/** Two-ink block print: dark shapes on warm stock, opened by gouges. */
export function blockPrint(random: Random, paper: string, ink: string, seed: number): string {
  let shapes = '';
  let cuts = '';
  for (let i = 0; i < 7; i++) shapes += pebble(random, 130 + random() * 640, 130 + random() * 640, 90 + random() * 80);
  for (let i = 0; i < 10; i++) {
    const x = 90 + random() * 720;
    const y = 90 + random() * 720;
    const a = random() * 6.28;
    const length = 150 + random() * 130;
    const half = 32 + random() * 22;
    shapes += leaf(x, y, a, length, half);
    for (let k = 1; k < 10; k++)
      for (const side of [-1, 1]) {
        const from = [length * (k / 10), 2 * side];
        const at = (u: number, v: number): [number, number] => [
          x + u * Math.cos(a) - v * Math.sin(a),
          y + u * Math.sin(a) + v * Math.cos(a),
        ];
        const [cx, cy] = at(from[0], from[1]);
        cuts += leaf(cx, cy, a + side * 0.9, half * 0.72, 2.4 + random() * 1.4);
      }
  }
  const slant = (): number => 0.5 + random() * 0.5;
  cuts += spindles(
    random,
    420,
    slant,
    () => 18 + random() * 30,
    () => 2 + random() * 2,
  );
  const chatter = spindles(
    random,
    70,
    slant,
    () => 14 + random() * 14,
    () => 1.6,
  );
  return svg(
    `${rect(paper)}<g filter="url(#rag)"><path d="${shapes}" fill="${ink}"/><path d="${cuts}" fill="${paper}"/><path d="${chatter}" fill="${ink}"/></g>`,
    wander('rag', 0.06, 7, seed),
  );
}

/** Opaque paint in flat, slightly streaked shapes. */
export function gouache(random: Random, colours: readonly string[], seed: number): string {
  let body = '';
  for (let i = 0; i < 26; i++) {
    const x = random() * SIDE;
    const y = random() * SIDE;
    const d =
      random() < 0.5
        ? pebble(random, x, y, 70 + random() * 130, 8, 0.4)
        : leaf(x, y, random() * 6.28, 190 + random() * 210, 42 + random() * 46);
    body += `<path d="${d}" fill="${colours[1 + Math.floor(random() * (colours.length - 1))]}"/>`;
  }
  const streaks = `<filter id="paint" x="-5%" y="-5%" width="110%" height="110%"><feTurbulence type="fractalNoise" baseFrequency="0.01 0.1" numOctaves="3" seed="${seed}" result="n"/><feColorMatrix in="n" type="matrix" values="0 0 0 0 1  0 0 0 0 1  0 0 0 0 1  0.9 0 0 0 -0.38" result="m"/><feComposite in="m" in2="SourceGraphic" operator="in" result="light"/><feMerge result="all"><feMergeNode in="SourceGraphic"/><feMergeNode in="light"/></feMerge><feTurbulence type="fractalNoise" baseFrequency="0.028" numOctaves="3" seed="${seed + 4}" result="n2"/><feDisplacementMap in="all" in2="n2" scale="10"/></filter>`;
  return svg(`${rect(colours[0])}<g filter="url(#paint)">${body}</g>`, streaks);
}

/** Two lit balls in parallel cut lines that swell with the shade. */
export function engraving(random: Random, paper: string, ink: string, gap: number): string {
  const balls = [
    { x: 300 + random() * 60, y: 330 + random() * 40, r: 210 },
    { x: 620 + random() * 40, y: 590 + random() * 40, r: 165 },
  ];
  const table = 740;
  const tone = (x: number, y: number): number => {
    let t = y > table ? 0.36 : 0.1;
    for (const b of balls) {
      const u = (x - b.x) / b.r;
      const v = (y - b.y) / b.r;
      if (u * u + v * v < 1) t = 0.16 + 0.8 * Math.max(0, (u + v + 0.75) / 2);
    }
    return Math.min(1, t);
  };
  const angle = 0.45 + random() * 0.35;
  let strokes = '';
  for (const pass of [0, 1]) {
    const a = pass ? -angle : angle;
    for (let o = -SIDE; o < 2 * SIDE; o += gap)
      for (let s = -SIDE; s < 2 * SIDE; s += 10) {
        const x = s * Math.cos(a) - o * Math.sin(a);
        const y = s * Math.sin(a) + o * Math.cos(a);
        if (x < 0 || y < 0 || x > SIDE || y > SIDE) continue;
        const t = tone(x, y);
        const width = pass ? (t - 0.52) * gap * 0.8 : t * gap * 0.72;
        if (width < 0.45) continue;
        strokes += `<path d="M${x.toFixed(1)} ${y.toFixed(1)}l${(10.5 * Math.cos(a)).toFixed(1)} ${(10.5 * Math.sin(a) + Math.sin(s * 0.05) * 0.6).toFixed(1)}" stroke-width="${width.toFixed(2)}"/>`;
      }
  }
  const rings = balls
    .map(b => `<circle cx="${b.x.toFixed(0)}" cy="${b.y.toFixed(0)}" r="${b.r}" fill="none" stroke-width="4"/>`)
    .join('');
  return svg(`${rect(paper)}<g stroke="${ink}">${strokes}${rings}</g>`);
}

/** Diluted pigment with pooled rims on white stock. */
export function wash(random: Random, paper: string, colours: readonly string[], seed: number): string {
  const filter = `<filter id="wet" x="-10%" y="-10%" width="120%" height="120%"><feTurbulence type="fractalNoise" baseFrequency="0.016" numOctaves="5" seed="${seed}" result="n"/><feDisplacementMap in="SourceGraphic" in2="n" scale="50" result="s"/><feMorphology in="s" operator="erode" radius="3" result="e"/><feGaussianBlur in="e" stdDeviation="6" result="eb"/><feComposite in="s" in2="eb" operator="arithmetic" k2="1" k3="-.55" result="rim"/><feColorMatrix in="n" type="matrix" values="0 0 0 0 1  0 0 0 0 1  0 0 0 0 1  1.6 0 0 0 -.45" result="pig"/><feComposite in="s" in2="pig" operator="arithmetic" k2=".62" k1="-.35" result="body"/><feMerge><feMergeNode in="body"/><feMergeNode in="rim"/></feMerge></filter>`;
  let body = '';
  for (let i = 0; i < 15; i++) {
    const x = 70 + random() * 760;
    const y = 70 + random() * 760;
    const d =
      random() < 0.5
        ? pebble(random, x, y, 70 + random() * 130, 9, 0.4)
        : leaf(x, y, random() * 6.28, 210 + random() * 140, 58 + random() * 36);
    body += `<g style="mix-blend-mode:multiply" filter="url(#wet)"><path d="${d}" fill="${pick(random, colours)}"/></g>`;
  }
  return svg(rect(paper) + body, filter);
}

/** Stacked paper shapes with soft shadows. */
export function cutPaper(random: Random, colours: readonly string[]): string {
  const filter =
    '<filter id="drop" x="-20%" y="-20%" width="140%" height="140%"><feDropShadow dx="6" dy="8" stdDeviation="6" flood-color="#000" flood-opacity=".4"/></filter>';
  let body = '';
  for (let i = 0; i < 22; i++) {
    const x = random() * SIDE;
    const y = random() * SIDE;
    const d =
      random() < 0.5
        ? pebble(random, x, y, 70 + random() * 140, 7, 0.3)
        : leaf(x, y, random() * 6.28, 210 + random() * 190, 52 + random() * 46);
    body += `<path filter="url(#drop)" d="${d}" fill="${colours[1 + Math.floor(random() * (colours.length - 1))]}"/>`;
  }
  return svg(rect(colours[0]) + body, filter);
}

/** Overprinted spot inks, some as dots. */
export function spotPrint(random: Random, paper: string, inks: readonly string[], seed: number): string {
  const patterns = inks
    .map(
      (ink, i) =>
        `<pattern id="dots${i}" width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(${35 + 20 * i})"><circle cx="5" cy="5" r="3.2" fill="${ink}"/></pattern>`,
    )
    .join('');
  const speckle = `<filter id="dry"><feTurbulence type="fractalNoise" baseFrequency="1" numOctaves="2" seed="${seed}" result="n"/><feColorMatrix in="n" type="matrix" values="0 0 0 0 0  0 0 0 0 0  0 0 0 0 0  0 -5 0 0 3.6"/><feComposite in="SourceGraphic" operator="in"/></filter>`;
  let body = '';
  for (let i = 0; i < 19; i++) {
    const x = random() * SIDE;
    const y = random() * SIDE;
    const k = Math.floor(random() * inks.length);
    const d =
      random() < 0.5
        ? pebble(random, x, y, 70 + random() * 140, 8, 0.3)
        : leaf(x, y, random() * 6.28, 210 + random() * 190, 52 + random() * 46);
    body += `<g style="mix-blend-mode:multiply"><path d="${d}" fill="${random() < 0.5 ? inks[k] : `url(#dots${k})`}" transform="translate(${k * 5} ${3 - k * 2})"/></g>`;
  }
  return svg(`${rect(paper)}<g filter="url(#dry)">${body}</g>`, patterns + speckle);
}

/** Soft sticks dragged over rough paper: many overlapping strokes of near colours that skip the hollows of the sheet. */
export function pastel(random: Random, paper: string, colours: readonly string[], seed: number): string {
  const tooth = `<filter id="tooth" x="-5%" y="-5%" width="110%" height="110%"><feTurbulence type="fractalNoise" baseFrequency="0.32" numOctaves="2" seed="${seed}" result="n"/><feColorMatrix in="n" type="matrix" values="0 0 0 0 0  0 0 0 0 0  0 0 0 0 0  0 6 0 0 -2.35" result="t"/><feComposite in="SourceGraphic" in2="t" operator="in"/></filter>`;
  let body = '';
  for (let i = 0; i < 20; i++) {
    const x = random() * SIDE;
    const y = random() * SIDE;
    const radius = 90 + random() * 130;
    const a = random() * 3.14;
    const colour = pick(random, colours);
    let strokes = '';
    for (let k = 0; k < 46; k++) {
      const r = radius * Math.sqrt(random());
      const t = random() * 6.28;
      const cx = x + r * Math.cos(t);
      const cy = y + r * Math.sin(t);
      const length = 30 + random() * 60;
      const b = a + (random() - 0.5) * 0.5;
      strokes += `<path d="M${cx.toFixed(1)} ${cy.toFixed(1)}q${(length * 0.5 * Math.cos(b) + 6).toFixed(1)} ${(length * 0.5 * Math.sin(b)).toFixed(1)} ${(length * Math.cos(b)).toFixed(1)} ${(length * Math.sin(b)).toFixed(1)}" stroke="${colour}" stroke-opacity="${(0.55 + random() * 0.45).toFixed(2)}" stroke-width="${(9 + random() * 9).toFixed(1)}"/>`;
    }
    body += strokes;
  }
  return svg(`${rect(paper)}<g filter="url(#tooth)" fill="none" stroke-linecap="round">${body}</g>`, tooth);
}

/** Thick paint laid in short curved strokes that keep the marks of the hairs. */
export function impasto(random: Random, colours: readonly string[], seed: number): string {
  const hairs = `<filter id="hairs" x="-5%" y="-5%" width="110%" height="110%"><feTurbulence type="fractalNoise" baseFrequency="0.09" numOctaves="2" seed="${seed}" result="n"/><feDisplacementMap in="SourceGraphic" in2="n" scale="9"/></filter>`;
  const lit = (code: string, by: number): string =>
    '#' +
    [1, 3, 5]
      .map(k =>
        Math.max(0, Math.min(255, Math.round(parseInt(code.slice(k, k + 2), 16) * (1 + by))))
          .toString(16)
          .padStart(2, '0'),
      )
      .join('');
  const centres = Array.from({ length: 14 }, () => ({ x: random() * SIDE, y: random() * SIDE, c: pick(random, colours) }));
  let body = '';
  for (let k = 0; k < 1700; k++) {
    const x = random() * SIDE;
    const y = random() * SIDE;
    const near = centres.reduce((p, q) => ((q.x - x) ** 2 + (q.y - y) ** 2 < (p.x - x) ** 2 + (p.y - y) ** 2 ? q : p));
    const a = Math.atan2(y - near.y, x - near.x) + 1.57 + (random() - 0.5) * 0.5;
    const length = 40 + random() * 45;
    const width = 13 + random() * 8;
    const colour = lit(near.c, (random() - 0.5) * 0.22);
    const dx = length * Math.cos(a);
    const dy = length * Math.sin(a);
    const at = (o: number): string =>
      `M${(x + o * Math.sin(a)).toFixed(1)} ${(y - o * Math.cos(a)).toFixed(1)}q${(dx * 0.5 + dy * 0.12).toFixed(1)} ${(dy * 0.5 - dx * 0.12).toFixed(1)} ${dx.toFixed(1)} ${dy.toFixed(1)}`;
    body += `<path d="${at(0)}" stroke="${colour}" stroke-width="${width.toFixed(1)}"/><path d="${at(width * 0.36)}" stroke="${lit(colour, 0.16)}" stroke-width="2.4"/><path d="${at(-width * 0.38)}" stroke="${lit(colour, -0.2)}" stroke-width="2.4"/>`;
  }
  return svg(`${rect(colours[0])}<g filter="url(#hairs)" fill="none" stroke-linecap="round">${body}</g>`, hairs);
}
