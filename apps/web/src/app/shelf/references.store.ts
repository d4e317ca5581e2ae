import { inject } from '@angular/core';
import type { Reference } from '@zinc/contract';
import { Api } from '../shared/api';
import { createCollection } from '../shared/collection';

export const references = createCollection<Reference>('references');

/** Fetches all pages of the shelf. */
export const loadReferences = references.loadEffect(() => {
  const api = inject(Api);
  return async () => {
    const all: Reference[] = [];
    for (let after: string | null = ''; after !== null;) {
      const page: { items: Reference[]; next: string | null } = await api.get(`/references${after ? `?after=${after}` : ''}`);
      all.push(...page.items);
      after = page.next;
    }
    return all;
  };
});
