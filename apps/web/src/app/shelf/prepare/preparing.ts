import type { Drift, Fingerprint, Preparation } from '@zinc/core';

/** Messages to the worker that prepares: first a picture, then any number of preparations of it. */
export type PrepareOrder =
  | { kind: 'picture'; bytes: ArrayBuffer }
  /** `whole`: also show the picture without its crop, on which places are pointed at. */
  | { kind: 'prepare'; id: number; preparation: Preparation; whole: boolean };

export interface Shown {
  width: number;
  height: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
}

export type PrepareAnswer =
  | {
      kind: 'ready';
      original: Shown;
      fingerprint: Fingerprint;
      maps: Record<string, { width: number; height: number; data: Float32Array }>;
    }
  | { kind: 'made'; id: number; shown: Shown; small: Shown; fingerprint: Fingerprint; drift: Drift }
  | { kind: 'refused'; id: number; part: string; message: string };
