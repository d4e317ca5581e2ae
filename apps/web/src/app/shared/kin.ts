import type { Kin } from '@zinc/core';

/** How a proof comes from another: as its ticket says it, and in a word for a small picture. */
export const KIN: Readonly<Record<Kin, { long: string; short: string }>> = {
  offshoot: { long: 'offshoot', short: 'offshoot' },
  removed: { long: 'part removed', short: 'retouched' },
  paintedAgain: { long: 'part painted again', short: 'retouched' },
  asked: { long: 'as asked', short: 'as asked' },
  matched: { long: 'matched to its set', short: 'matched' },
};
