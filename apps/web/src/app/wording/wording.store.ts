import { inject } from '@angular/core';
import type { Subject, Template } from '@zinc/contract';
import { Api } from '../shared/api';
import { createCollection } from '../shared/collection';

export const templates = createCollection<Template>('templates');
export const subjects = createCollection<Subject>('subjects');

export const loadTemplates = templates.loadEffect(() => {
  const api = inject(Api);
  return async () => (await api.get<{ items: Template[] }>('/templates')).items;
});

export const loadSubjects = subjects.loadEffect(() => {
  const api = inject(Api);
  return async () => (await api.get<{ items: Subject[] }>('/subjects')).items;
});
