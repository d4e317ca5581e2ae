import { inject } from '@angular/core';
import type { Run } from '@zinc/contract';
import { Api } from '../shared/api';
import { createCollection } from '../shared/collection';

export const runs = createCollection<Run>('runs');

export const loadRuns = runs.loadEffect(() => {
  const api = inject(Api);
  return async () => (await api.get<{ items: Run[] }>('/runs')).items;
});
