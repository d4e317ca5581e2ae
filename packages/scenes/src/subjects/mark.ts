import { hex, type Point } from '../canvas/canvas.ts';
import { leafWidth } from '../canvas/leaf.ts';
import { cos, sin } from '@zinc/core/number/trig';
import type { DrawnSubject } from './types.ts';

/** The co-operative's flat mark: a split seed whose halves become two leaves over a furrow. It is the same for every seed. */
export const mark: DrawnSubject = {
  name: 'mark',
  unlit: true,
  words: ["the co-operative's mark", "co-operative's mark", 'the mark', 'co-operative mark', 'flat mark', 'brand mark'],
  draw(canvas) {
    const ground = hex('#f3eee2');
    const soot = hex('#23262b');
    canvas.backdrop(ground, ground, ground, 1.5);
    const disc: Point[] = Array.from({ length: 72 }, (_, i) => [
      0.5 + 0.36 * cos((i / 72) * 6.28318),
      0.5 + 0.36 * sin((i / 72) * 6.28318),
    ]);
    canvas.polygon(disc, hex('#8e2a4b'));
    const leaf = (side: number): void =>
      canvas.ribbon(
        [
          [0.5 + side * 0.012, 0.6],
          [0.5 + side * 0.09, 0.42],
          [0.5 + side * 0.2, 0.31],
        ],
        t => 0.085 * leafWidth(t) + 0.002,
        ground,
        { round: 0 },
      );
    leaf(-1);
    leaf(1);
    canvas.ribbon(
      [
        [0.5, 0.56],
        [0.5, 0.68],
      ],
      () => 0.016,
      ground,
      { round: 0 },
    );
    canvas.ribbon(
      [
        [0.24, 0.7],
        [0.4, 0.675],
        [0.6, 0.675],
        [0.76, 0.7],
      ],
      () => 0.014,
      ground,
      { round: 0 },
    );
    canvas.ribbon(
      [
        [0.29, 0.755],
        [0.42, 0.735],
        [0.58, 0.735],
        [0.71, 0.755],
      ],
      () => 0.012,
      soot,
      { round: 0 },
    );
    canvas.ribbon(
      [
        [0.36, 0.805],
        [0.45, 0.79],
        [0.55, 0.79],
        [0.64, 0.805],
      ],
      () => 0.01,
      soot,
      { round: 0 },
    );
  },
};
