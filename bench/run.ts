import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import type { Stack } from '../scripts/stack.ts';
import { line } from './kit.ts';

/** Twenty wordings that the house press draws, each with three places: sixty subjects. */
const THINGS = (
  'radish, globe artichoke, sunflower, broad bean pod, beetroot, leek, garlic bulb, pea shoot, pumpkin, carrot, kale, honeybee, wren, ' +
  'snail, watering can, hand trowel, cold frame, greenhouse, wheelbarrow, scarecrow'
).split(', ');
const PLACES = ['', ' on a table', ' at dusk'];
const SUBJECTS = THINGS.flatMap(t => PLACES.map(p => `Bench ${t}${p}; ${t}${p}`));

/** CPU seconds that a process and its threads have used. */
function cpuSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

/** Most memory that a process has had in use at once, in MB. */
function peakMegabytes(pid: number): number {
  return Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
}

interface PressView {
  id: string;
  name: string;
  url: string | null;
  shares: boolean;
}

/** A run of 60 subjects × 4 takes at 768²: cores busy, its time against the ideal, and memory over it and some hundred images more. */
export async function benchRun(
  stack: Stack,
  get: (path: string) => Promise<Response>,
  send: (method: string, path: string, body: unknown) => Promise<Response>,
): Promise<void> {
  const json = async <T>(path: string): Promise<T> => (await get(path)).json() as Promise<T>;
  const house = await json<{ formats: { id: string; name: string }[]; presses: PressView[] }>('/api/house');
  const [press] = house.presses;
  const added = await send('POST', '/api/subjects/paste', { text: SUBJECTS.join('\n') });
  const subjects = ((await added.json()) as { items: { id: string }[] }).items;
  const looks = (await json<{ items: { id: string; name: string }[] }>('/api/looks')).items;
  const templates = (await json<{ items: { id: string }[] }>('/api/templates')).items;
  const pids = { server: stack.pids.server!, press: stack.pids.press! };
  const cpu = (): number => cpuSeconds(pids.server()!) + cpuSeconds(pids.press()!);
  const peaks = (): string =>
    `server ${peakMegabytes(pids.server()!).toFixed(0)} MB, press ${peakMegabytes(pids.press()!).toFixed(0)} MB`;

  /** Makes a run and returns its seconds and the CPU seconds spent. */
  const make = async (count: number, takes: number, format: string): Promise<{ wall: number; spent: number; images: number }> => {
    const plan = {
      name: `Bench of ${count} × ${takes}`,
      subjectIds: subjects.slice(0, count).map(s => s.id),
      lookIds: [looks.find(l => l.name === 'Almanac Wash')!.id],
      templateId: templates[0].id,
      fills: {},
      formatIds: [house.formats.find(f => f.name === format)!.id],
      takes,
      seedPolicy: 'fresh',
      seed: 1,
      strength: null,
      pressId: press.id,
      struckOut: [],
    };
    const [before, started] = [cpu(), performance.now()];
    const run = (await (await send('POST', '/api/runs', plan)).json()) as { id: string };
    for (let state = 'running'; state !== 'done';) {
      await new Promise(r => setTimeout(r, 250));
      state = (await json<{ items: { id: string; state: string }[] }>('/api/runs')).items.find(r => r.id === run.id)!.state;
    }
    return { wall: (performance.now() - started) / 1000, spent: cpu() - before, images: count * takes };
  };
  const atOnce = (most: number | null): Promise<Response> =>
    send('PUT', `/api/presses/${press.id}`, {
      name: press.name,
      url: null,
      atOnce: most,
      price: null,
      shares: true,
      inUse: true,
    });

  const cores = availableParallelism();
  await make(12, 1, 'Square 768');
  const start = peaks();
  await atOnce(1);
  const alone = await make(60, 1, 'Square 768');
  await atOnce(null);
  const whole = await make(60, 4, 'Square 768');
  const [each, ideal] = [whole.wall / whole.images, alone.wall / alone.images / cores];
  console.log(`\nBaseline: the same images one at a time, ${(alone.wall / alone.images).toFixed(2)} s each\n`);
  line(`cores busy over 60 × 4 at 768², share of ${cores}`, whole.spent / (whole.wall * cores), `${whole.wall.toFixed(0)} s`);
  line('its time ÷ (one at a time ÷ cores)', each / ideal, `${each.toFixed(2)} s an image, ideal ${ideal.toFixed(2)} s`);
  const after = peaks();
  await make(60, 4, 'Square 512');
  console.log(`memory at most: at the start ${start}; after 300 images more ${after}; after 540 more ${peaks()}`);
}
