import { inject } from '@angular/core';
import type { WordStyle } from '@zinc/contract';
import { Api } from '../shared/api';
import { createCollection } from '../shared/collection';

export const wordStyles = createCollection<WordStyle>('wordStyles');
export const loadWordStyles = wordStyles.loadEffect(() => {
  const api = inject(Api);
  return async () => (await api.get<{ items: WordStyle[] }>('/word-styles')).items;
});
