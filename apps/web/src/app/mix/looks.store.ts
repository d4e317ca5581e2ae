import { inject } from '@angular/core';
import type { Look } from '@zinc/contract';
import { Api } from '../shared/api';
import { createCollection } from '../shared/collection';

export const looks = createCollection<Look>('looks');

export const loadLooks = looks.loadEffect(() => {
  const api = inject(Api);
  return async () => (await api.get<{ items: Look[] }>('/looks')).items;
});
