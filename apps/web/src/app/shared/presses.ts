import type { Press } from '@zinc/contract';

/** What a press is doing, in a few words. */
export function pressDoing(p: Press): string {
  if (p.state === 'gone') return 'does not answer';
  if (p.state === 'rests') return 'left alone for a while, for it went wrong too often';
  if (p.state === 'unused') return 'out of use';
  return p.waiting > 0 ? `busy, ${p.waiting} to go` : 'idle';
}

/** Images that are asked of a press at once. */
export function imagesAtOnce(p: Press): number {
  return Math.min(p.capabilities?.atOnce ?? 1, p.atOnce ?? Infinity);
}

/** Who shares the work of a press; nothing when nobody does. */
export function sharesWith(p: Press): string[] {
  return p.mates.length > 0 ? [`shares its work with ${p.mates.join(' and ')}`] : [];
}
