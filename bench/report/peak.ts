// Paints one large picture with strokes and prints the most memory the process held, in kilobytes.
import { readFileSync } from 'node:fs';
import { labOfHex, neutralStyle, paint } from '@zinc/core';
import { drawSubject } from '@zinc/scenes';

const palette = ['#23262b', '#8e2a4b', '#5f7f6b', '#f3eee2'].map(hex => ({ ...labOfHex(hex), share: 0.25 }));
const base = neutralStyle();
const style = {
  ...base,
  palette,
  amounts: { ...base.amounts, brush: 1, brushSize: 4, flat: 0.6, edgeKeep: 0.8, smooth: 3, grain: 0.3 },
};
const scene = drawSubject('artichoke', 7, 1024, 1024);
paint(scene.picture, style, 1, 7, { mask: scene.mask, parts: scene.parts });
// A started process inherits its parent's mark in `resourceUsage`; the kernel's own begins with the program.
const mark = /VmHWM:\s*(\d+) kB/.exec(readFileSync('/proc/self/status', 'utf8'));
process.stdout.write(mark?.[1] ?? '');
