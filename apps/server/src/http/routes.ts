import { recipeRoutes } from '../deliver/recipes.ts';
import { deliverRoutes } from '../deliver/routes.ts';
import { houseRoutes } from '../house/routes.ts';
import { lookRoutes } from '../mix/routes.ts';
import { wordStyleRoutes } from '../mix/wordStyleRoutes.ts';
import { peopleRoutes } from '../people/routes.ts';
import { pressRoutes } from '../presses/routes.ts';
import { rangeRoutes } from '../review/ranges.ts';
import { commentRoutes } from '../review/comments.ts';
import { coverageRoutes } from '../review/coverage.ts';
import { findingRoutes } from '../review/findings.ts';
import { keptRoutes } from '../review/kept.ts';
import { mendRoutes } from '../review/mends.ts';
import { roundRoutes } from '../review/rounds.ts';
import { reviewRoutes } from '../review/routes.ts';
import { budgetRoutes } from '../runs/budgets.ts';
import { runRoutes } from '../runs/routes.ts';
import { codeRoutes } from '../shelf/codes/routes.ts';
import { findRoutes } from '../shelf/find/routes.ts';
import { prepareRoutes } from '../shelf/prepare/routes.ts';
import { shelfRoutes } from '../shelf/routes.ts';
import { listRoutes } from '../wording/lists.ts';
import { wordingRoutes } from '../wording/routes.ts';
import type { Route } from './route.ts';

/** Every route of the API, in the order of the work. */
export const routes: readonly Route[] = [
  ...peopleRoutes,
  ...houseRoutes,
  ...pressRoutes,
  ...shelfRoutes,
  ...prepareRoutes,
  ...findRoutes,
  ...codeRoutes,
  ...lookRoutes,
  ...wordStyleRoutes,
  ...wordingRoutes,
  ...listRoutes,
  ...runRoutes,
  ...budgetRoutes,
  ...reviewRoutes,
  ...roundRoutes,
  ...commentRoutes,
  ...mendRoutes,
  ...findingRoutes,
  ...coverageRoutes,
  ...keptRoutes,
  ...rangeRoutes,
  ...deliverRoutes,
  ...recipeRoutes,
];
