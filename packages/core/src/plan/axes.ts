import { FACETS, type Facet } from '../measure/types.ts';
import { slotFault } from '../words/template.ts';
import { PlanError, type Axis, type CellValue, type Plan, type PlanLibrary, type SettingValue } from './types.ts';

/**
 * Settings that a plan can step through: `strength`, `bind`, `fidelity` (per cent), `lookVersion` (numbers), `facets` (lists with + between),
 * `parts:SOURCE` (parts of one source of the looks), `slot:NAME` (values of a template's slot), `press` (ids of presses), `model` (models of
 * the press), `press:KEY` (what the press declares).
 */
export const STEPPED = ['strength', 'bind', 'fidelity', 'lookVersion', 'facets', 'parts', 'slot', 'press', 'model'] as const;

const MOST_AXES = 2;
const MOST_VALUES = 24;

/** Whether a setting changes what a look comes to, so that it must be mixed again. */
export function isMixing(setting: string): boolean {
  return setting === 'lookVersion' || setting === 'facets' || setting.startsWith('parts:');
}

/** The values chosen in one column of a plan, by setting. */
export type Choice = ReadonlyMap<string, SettingValue>;

/** Names what a look comes to at these choices; the look itself when none of them changes how it is mixed. */
export function styleKey(lookId: string, choice: Choice): string {
  const mixing = [...choice].filter(([setting]) => isMixing(setting)).map(([setting, value]) => `${setting}=${String(value)}`);
  return [lookId, ...mixing].join('/');
}

/** Facets of a value such as `line+texture`; null when it names none, or anything else. */
export function facetsOf(value: SettingValue): Facet[] | null {
  const names = String(value).split('+');
  return names.every(n => (FACETS as readonly string[]).includes(n)) ? (names as Facet[]) : null;
}

/** Every axis of a plan: slots with several values first, in the order of the template, then what is stepped. */
export function axesOf(plan: Plan, library: PlanLibrary): Axis[] {
  const axes = plan.axes ?? [];
  if (axes.length > MOST_AXES) throw new PlanError('axes', `Got ${axes.length} settings to step; at most two can be told apart.`);
  const slots = Object.entries(plan.alternatives ?? {}).map(([name, values]): Axis => ({ setting: `slot:${name}`, values }));
  const all = [...slots, ...axes];
  const seen = new Set<string>();
  for (const axis of all) {
    if (seen.has(axis.setting))
      throw new PlanError('axes', `The setting “${axis.setting}” is stepped twice; take one of them out.`);
    seen.add(axis.setting);
    check(axis, library);
  }
  return all;
}

function check({ setting, values }: Axis, library: PlanLibrary): void {
  const field = setting.startsWith('slot:') ? 'alternatives' : 'axes';
  const what = labelOf(setting, library);
  if (values.length === 0) throw new PlanError(field, `${what} has no values to try; write at least one.`);
  if (values.length > MOST_VALUES)
    throw new PlanError(field, `${what} has ${values.length} values; at most ${MOST_VALUES} fit in a strip.`);
  if (new Set(values.map(String)).size < values.length)
    throw new PlanError(field, `${what} has a value twice; take one of them out.`);
  for (const value of values) {
    const wrong = faultOf(setting, value, library);
    if (wrong) throw new PlanError(field, wrong);
  }
}

function faultOf(setting: string, value: SettingValue, library: PlanLibrary): string | null {
  const what = labelOf(setting, library);
  const whole = (from: number, to: number): string | null =>
    typeof value === 'number' && Number.isInteger(value) && value >= from && value <= to
      ? null
      : `${what} is ${String(value)}; wanted a whole number from ${from} to ${to}.`;
  const [kind, name] = split(setting);
  if (kind === 'strength' || kind === 'bind' || kind === 'fidelity') return whole(0, 100);
  if (kind === 'lookVersion') return whole(1, 100_000);
  if (kind === 'parts') return whole(0, 99);
  if (kind === 'facets')
    return facetsOf(value) ? null : `“${String(value)}” names no facets; write colour, light, line, texture with + between.`;
  if (kind === 'slot') {
    const slot = library.template?.slots.find(s => s.name === name);
    if (!slot) return `The template has no slot “${name}”.`;
    return String(value).trim() === '' ? `A value of ${name} is empty.` : slotFault(slot, String(value));
  }
  if (setting === 'press')
    return library.presses?.some(p => p.id === value) ? null : `There is no press “${String(value)}” in use in the house.`;
  if (kind === 'model') {
    const { name: press, models = [] } = library.press;
    return models.includes(String(value)) ? null : `${press} has no model “${String(value)}”; it has ${models.join(', ')}.`;
  }
  if (kind === 'press') {
    const declared = library.pressSettings?.find(s => s.key === name);
    if (!declared) return `This press has no setting “${name}”.`;
    if (declared.type === 'percent' || declared.type === 'integer') return whole(declared.from ?? 0, declared.to ?? 100);
    return null;
  }
  return `“${setting}” is nothing that can be stepped.`;
}

function split(setting: string): [kind: string, name: string] {
  const at = setting.indexOf(':');
  return at < 0 ? [setting, ''] : [setting.slice(0, at), setting.slice(at + 1)];
}

const PLAIN: Readonly<Record<string, string>> = {
  strength: 'Strength',
  bind: 'Bind',
  fidelity: 'Fidelity',
  lookVersion: 'Version of the look',
  facets: 'Facets',
  press: 'Press',
  model: 'Model',
};

/** What people call a setting. */
export function labelOf(setting: string, library: Pick<PlanLibrary, 'pressSettings' | 'sourceNames'>): string {
  const [kind, name] = split(setting);
  if (setting in PLAIN) return PLAIN[setting];
  if (kind === 'press') return library.pressSettings?.find(s => s.key === name)?.label ?? name;
  if (kind === 'parts') return `Parts of ${library.sourceNames?.[name] ?? 'a source'}`;
  if (kind === 'slot') return name;
  return setting;
}

/** A value as people read it. */
export function valueLabel(
  setting: string,
  value: SettingValue,
  library: Pick<PlanLibrary, 'pressSettings' | 'presses'>,
): string {
  const [kind, name] = split(setting);
  if (kind === 'strength' || kind === 'bind' || kind === 'fidelity') return `${String(value)} %`;
  if (setting === 'press') return library.presses?.find(p => p.id === value)?.name ?? String(value);
  if (kind === 'press')
    return library.pressSettings?.find(s => s.key === name)?.type === 'percent' ? `${String(value)} %` : String(value);
  if (kind === 'parts') return value === 1 ? '1 part' : `${String(value)} parts`;
  if (kind === 'lookVersion') return `version ${String(value)}`;
  if (kind === 'facets') return facetsOf(value)?.length === FACETS.length ? 'all facets' : String(value).replaceAll('+', ', ');
  return String(value);
}

/** Every combination of the axes' values, the last axis turning fastest. */
export function choicesOf(axes: readonly Axis[]): Choice[] {
  let out: Choice[] = [new Map()];
  for (const { setting, values } of axes) out = out.flatMap(c => values.map(v => new Map([...c, [setting, v]])));
  return out;
}

/** The choices of a column in words. */
export function valuesOf(choice: Choice, library: PlanLibrary): CellValue[] {
  return [...choice].map(([setting, value]) => ({
    setting,
    what: labelOf(setting, library),
    value: valueLabel(setting, value, library),
  }));
}
