import { inject, Injectable, signal } from '@angular/core';
import type { Look, LookSource, LookUsage } from '@zinc/contract';
import { Api } from '../shared/api';

/** How looks did, fetched again each time a page asks; until then, and when it fails, nothing is known. */
@Injectable({ providedIn: 'root' })
export class Usage {
  private readonly api = inject(Api);
  readonly all = signal<readonly LookUsage[]>([]);

  async refresh(): Promise<void> {
    try {
      this.all.set((await this.api.get<{ items: LookUsage[] }>('/usage/looks')).items);
    } catch {
      // What is shown beside a look is a help, not the page: it stays as it was.
    }
  }
}

/** A look over all its versions, or one version of it; null when nothing was made with it. */
export function usageOf(all: readonly LookUsage[], lookId: string, version?: number): LookUsage | null {
  return together(all.filter(u => u.lookId === lookId && (version === undefined || u.version === version)));
}

/** The looks that mix a source now, and how all of them did together. */
export function usageOfSource(
  all: readonly LookUsage[],
  looks: readonly Look[],
  uses: (s: LookSource) => boolean,
): { looks: Look[]; usage: LookUsage | null } {
  const mixing = looks.filter(l => l.latest.sources.some(s => s.parts > 0 && uses(s)));
  const ids = new Set(mixing.map(l => l.id));
  return { looks: mixing, usage: together(all.filter(u => ids.has(u.lookId))) };
}

function together(own: readonly LookUsage[]): LookUsage | null {
  if (own.length === 0) return null;
  const sum = (of: (u: LookUsage) => number): number => own.reduce((total, u) => total + of(u), 0);
  const measured = own.filter(u => u.drift !== null);
  const images = measured.reduce((total, u) => total + u.images, 0);
  const bad = new Set(own.flatMap(u => u.badFor));
  const good = new Set(own.flatMap(u => u.goodFor));
  return {
    ...own[0],
    images: sum(u => u.images),
    decided: sum(u => u.decided),
    kept: sum(u => u.kept),
    drift: images > 0 ? measured.reduce((total, u) => total + u.drift! * u.images, 0) / images : null,
    // What one version was good for and another bad for is said of neither.
    goodFor: [...good].filter(s => !bad.has(s)),
    badFor: [...bad].filter(s => !good.has(s)),
  };
}

/** In one line: what was made and how much of it was kept. */
export function usageLine(usage: LookUsage | null): string {
  if (!usage) return 'not used yet';
  const images = usage.images === 1 ? '1 image' : `${usage.images} images`;
  return usage.decided === 0 ? images : `${images}, ${Math.round((100 * usage.kept) / usage.decided)} % of ${usage.decided} kept`;
}
