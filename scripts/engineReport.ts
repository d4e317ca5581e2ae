import { reportEngine, sheetsForDocs } from '../bench/report/main.ts';

// `--docs` renews the sheets that docs/engine.md shows and leaves the figures alone.
await (process.argv.includes('--docs') ? sheetsForDocs() : reportEngine());
