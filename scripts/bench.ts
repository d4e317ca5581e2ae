import { benchEngine } from '../bench/engine.ts';
import { benchPlan } from '../bench/plan.ts';
import { benchReview } from '../bench/review.ts';
import { benchNearness, benchShelf } from '../bench/shelf.ts';
import { benchStack } from '../bench/stack.ts';

const BENCHES: Record<string, () => Promise<void>> = {
  engine: benchEngine,
  plan: benchPlan,
  nearness: benchNearness,
  shelf: benchShelf,
  review: benchReview,
  stack: benchStack,
};

const asked = process.argv.slice(2);
const unknown = asked.find(name => !(name in BENCHES));
if (unknown) {
  console.error(`There is no bench "${unknown}"; there are ${Object.keys(BENCHES).join(', ')}.`);
  process.exit(1);
}
console.log('Each figure is a ratio to a baseline taken in this same run; the times beside it are of this machine, now.');
for (const [name, bench] of Object.entries(BENCHES)) if (asked.length === 0 || asked.includes(name)) await bench();
