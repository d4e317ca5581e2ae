import { inject } from '@angular/core';
import { Router, type CanActivateFn, type Routes } from '@angular/router';
import { Store } from '@ngrx/store';
import { filter, map, take } from 'rxjs';
import { sessionFeature } from './shared/session.store';

/** Pages need someone signed in; the way back is kept. */
const signedIn: CanActivateFn = (_route, state) => {
  const router = inject(Router);
  return inject(Store)
    .select(sessionFeature.selectSessionState)
    .pipe(
      filter(s => s.status === 'ready'),
      take(1),
      map(s => (s.person ? true : router.createUrlTree(['/sign-in'], { queryParams: { to: state.url } }))),
    );
};

export const appRoutes: Routes = [
  {
    path: 'sign-in',
    title: 'Sign in · Zinc Shelf',
    loadComponent: () => import('./people/sign-in.page').then(m => m.SignInPage),
  },
  {
    path: '',
    canActivate: [signedIn],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'shelf' },
      { path: 'shelf', title: 'Shelf · Zinc Shelf', loadComponent: () => import('./shelf/shelf.page').then(m => m.ShelfPage) },
      {
        path: 'shelf/codes',
        title: 'Style codes · Zinc Shelf',
        loadComponent: () => import('./shelf/codes/codes.page').then(m => m.CodesPage),
      },
      {
        path: 'shelf/:id/prepare',
        title: 'Prepare · Zinc Shelf',
        loadComponent: () => import('./shelf/prepare/prepare.page').then(m => m.PreparePage),
      },
      {
        path: 'shelf/:id',
        title: 'Reference · Zinc Shelf',
        loadComponent: () => import('./shelf/reference.page').then(m => m.ReferencePage),
      },
      { path: 'mix', title: 'Mix · Zinc Shelf', loadComponent: () => import('./mix/mix.page').then(m => m.MixPage) },
      { path: 'mix/:id', title: 'Mix · Zinc Shelf', loadComponent: () => import('./mix/mix.page').then(m => m.MixPage) },
      {
        path: 'wording/styles',
        title: 'Word styles · Zinc Shelf',
        loadComponent: () => import('./mix/word-styles.page').then(m => m.WordStylesPage),
      },
      {
        path: 'wording',
        title: 'Wording · Zinc Shelf',
        loadComponent: () => import('./wording/wording.page').then(m => m.WordingPage),
      },
      { path: 'runs', title: 'Runs · Zinc Shelf', loadComponent: () => import('./runs/runs.page').then(m => m.RunsPage) },
      {
        path: 'runs/new',
        title: 'Plan a run · Zinc Shelf',
        loadComponent: () => import('./runs/plan.page').then(m => m.PlanPage),
      },
      { path: 'runs/:id', title: 'Run · Zinc Shelf', loadComponent: () => import('./runs/run.page').then(m => m.RunPage) },
      {
        path: 'review',
        title: 'Review · Zinc Shelf',
        data: { to: 'review' },
        loadComponent: () => import('./runs/runs.page').then(m => m.RunsPage),
      },
      {
        path: 'review/together',
        title: 'Laid together · Zinc Shelf',
        loadComponent: () => import('./review/together/together.page').then(m => m.TogetherPage),
      },
      {
        path: 'review/:id',
        title: 'Review · Zinc Shelf',
        loadComponent: () => import('./review/review.page').then(m => m.ReviewPage),
      },
      {
        path: 'review/proof/:id',
        title: 'Proof · Zinc Shelf',
        loadComponent: () => import('./proof/proof.page').then(m => m.ProofPage),
      },
      {
        path: 'campaigns/:id',
        title: 'Campaign · Zinc Shelf',
        loadComponent: () => import('./review/coverage/coverage.page').then(m => m.CoveragePage),
      },
      {
        path: 'reports/kept',
        title: 'What gets kept · Zinc Shelf',
        loadComponent: () => import('./review/kept/kept.page').then(m => m.KeptPage),
      },
      {
        path: 'deliver',
        title: 'Deliver · Zinc Shelf',
        data: { to: 'deliver' },
        loadComponent: () => import('./runs/runs.page').then(m => m.RunsPage),
      },
      {
        path: 'deliver/:id',
        title: 'Deliver · Zinc Shelf',
        loadComponent: () => import('./deliver/deliver.page').then(m => m.DeliverPage),
      },
      { path: 'house', title: 'House · Zinc Shelf', loadComponent: () => import('./house/house.page').then(m => m.HousePage) },
      {
        path: '**',
        title: 'Not found · Zinc Shelf',
        loadComponent: () => import('./shared/not-found.page').then(m => m.NotFoundPage),
      },
    ],
  },
];
