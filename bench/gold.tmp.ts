import { GOLDEN_PAINTINGS } from '@zinc/scenes/golden';
import fs from 'fs';
fs.writeFileSync(
  'packages/scenes/src/golden.json',
  JSON.stringify(Object.fromEntries(GOLDEN_PAINTINGS.map(g => [g.name, g.paint()])), null, 2) + '\n',
);
