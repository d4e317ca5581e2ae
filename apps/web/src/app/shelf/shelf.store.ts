import { inject } from '@angular/core';
import type { Reference, StyleCode } from '@zinc/contract';
import { Api } from '../shared/api';
import { createCollection } from '../shared/collection';

export const references = createCollection<Reference>('references');
export const loadReferences = references.loadEffect(() => {
  const api = inject(Api);
  return tell => api.pages<Reference>('/references', tell);
});

export const codes = createCollection<StyleCode>('codes');
export const loadCodes = codes.loadEffect(() => {
  const api = inject(Api);
  return tell => api.pages<StyleCode>('/codes', tell);
});
