import { inject, Injectable, signal } from '@angular/core';
import type { Fingerprint } from '@zinc/core';
import { Api } from './api';
import { Messages } from './messages';

const AT_ONCE = 100;

/** What kept pictures measure, by their hash; each is fetched once, those wanted together in one request. */
@Injectable({ providedIn: 'root' })
export class Fingerprints {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  readonly all = signal<Readonly<Record<string, Fingerprint>>>({});
  private readonly asked = new Set<string>();
  private waiting: string[] = [];

  want(hashes: readonly string[]): void {
    const fresh = hashes.filter(h => h && !this.asked.has(h));
    if (fresh.length === 0) return;
    fresh.forEach(h => this.asked.add(h));
    if (this.waiting.length === 0) queueMicrotask(() => void this.fetch());
    this.waiting.push(...fresh);
  }

  private async fetch(): Promise<void> {
    const hashes = this.waiting;
    this.waiting = [];
    for (let at = 0; at < hashes.length; at += AT_ONCE) {
      const some = hashes.slice(at, at + AT_ONCE);
      try {
        const { items } = await this.api.send<{ items: Record<string, Fingerprint> }>('POST', '/pictures/fingerprints', {
          hashes: some,
        });
        this.all.update(now => ({ ...now, ...items }));
      } catch (error) {
        some.forEach(h => this.asked.delete(h));
        this.messages.failed(error);
      }
    }
  }
}
