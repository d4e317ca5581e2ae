import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { restoreHouse } from './backup.ts';

const [file] = process.argv.slice(2);
const data = resolve(process.env.ZINC_DATA ?? fileURLToPath(new URL('../.zinc', import.meta.url)));
try {
  if (!file) throw new Error('Say which file: npm run restore -- house.tar.gz');
  const pictures = await restoreHouse(resolve(file), data);
  console.log(`The house is restored into ${data}, with ${pictures} picture files, each checked.`);
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
