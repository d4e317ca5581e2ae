import { provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { providePrimeNG } from 'primeng/config';
import { appRoutes } from './app.routes';
import * as liveEffects from './frame/live.effects';
import { looks, loadLooks } from './mix/looks.store';
import { loadWordStyles, wordStyles } from './mix/word-styles.store';
import { runs, loadRuns } from './runs/runs.store';
import { galleyFeature } from './shared/galley.store';
import { zincPreset } from './shared/preset';
import * as sessionEffects from './shared/session.effects';
import { sessionFeature } from './shared/session.store';
import { codes, loadCodes, loadReferences, references } from './shelf/shelf.store';
import { subjects, loadSubjects, templates, loadTemplates } from './wording/wording.store';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideRouter(appRoutes, withComponentInputBinding()),
    provideStore(),
    provideState(sessionFeature),
    provideState(galleyFeature),
    provideState(references.feature),
    provideState(codes.feature),
    provideState(looks.feature),
    provideState(wordStyles.feature),
    provideState(templates.feature),
    provideState(subjects.feature),
    provideState(runs.feature),
    provideEffects(sessionEffects, liveEffects, {
      loadReferences,
      loadCodes,
      loadLooks,
      loadWordStyles,
      loadTemplates,
      loadSubjects,
      loadRuns,
    }),
    providePrimeNG({ theme: { preset: zincPreset, options: { darkModeSelector: 'none', cssLayer: false } }, ripple: false }),
    MessageService,
  ],
};
