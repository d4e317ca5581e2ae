import { labelOf, valueLabel } from './axes.ts';
import { NO_LOOK, type Plan, type PlanBinding, type PlanLibrary } from './types.ts';

/** Names of what plans point to, by id. */
export interface PlanNames extends Pick<PlanLibrary, 'pressSettings' | 'sourceNames'> {
  subjects: Readonly<Record<string, string>>;
  looks: Readonly<Record<string, string>>;
  templates: Readonly<Record<string, string>>;
  formats: Readonly<Record<string, string>>;
  presses?: Readonly<Record<string, string>>;
}

const POLICIES = { one: 'one seed for all', subject: 'one seed a subject', fresh: 'a fresh seed a cell' } as const;

/**
 * How a plan differs from another, one phrase a setting, in the order of the ticket; empty when both would make the same. More than one
 * phrase means that nothing can be learnt of any single one of them.
 */
export function planDifferences(before: Plan, after: Plan, names: PlanNames): string[] {
  const out: string[] = [];
  const say = (what: string, p: string, q: string): void => {
    if (p !== q) out.push(`${what}: ${q}, was ${p}`);
  };
  lists(out, 'Subjects', before.subjectIds, after.subjectIds, id => names.subjects[id] ?? 'one that is gone');
  lists(out, 'Looks', before.lookIds, after.lookIds, id =>
    id === NO_LOOK ? 'no look' : (names.looks[id] ?? 'one that is gone'),
  );
  const template = (p: Plan): string => (p.templateId ? (names.templates[p.templateId] ?? 'one that is gone') : 'none');
  say('Template', template(before), template(after));
  for (const slot of new Set([...Object.keys(before.fills), ...Object.keys(after.fills)]))
    say(slot, before.fills[slot] ?? 'as the template has it', after.fills[slot] ?? 'as the template has it');
  say('Alternatives', told(before.alternatives), told(after.alternatives));
  say('Note', before.note?.trim() || 'none', after.note?.trim() || 'none');
  if (JSON.stringify(before.rows ?? {}) !== JSON.stringify(after.rows ?? {})) out.push('What belongs to single rows');
  const strength = (p: Plan): string => (p.strength === null ? 'the look’s own' : `${p.strength} %`);
  say('Strength', strength(before), strength(after));
  say('Bind', bound(before.binding), bound(after.binding));
  const fidelity = ({ fidelity: f }: Plan): string => (f ? `${f.subject} % subject, ${f.ground} % ground` : 'left to the look');
  say('Fidelity', fidelity(before), fidelity(after));
  const content = ({ content: c }: Plan): string => (c ? `${c.strength} %, read as ${c.read}` : '100 %, read as areas');
  say('Content pictures', content(before), content(after));
  say('Areas left clear', String(before.clear?.length ?? 0), String(after.clear?.length ?? 0));
  say('Marks', String(before.marks?.length ?? 0), String(after.marks?.length ?? 0));
  lists(out, 'Formats', before.formatIds, after.formatIds, id => names.formats[id] ?? 'one that is gone');
  say('Takes', String(before.takes), String(after.takes));
  say('Seeds', POLICIES[before.seedPolicy], POLICIES[after.seedPolicy]);
  say('Seed', String(before.seed), String(after.seed));
  for (const key of new Set([...Object.keys(before.settings ?? {}), ...Object.keys(after.settings ?? {})])) {
    const value = (p: Plan): string => {
      const v = p.settings?.[key];
      return v === undefined ? 'the press’s own' : valueLabel(`press:${key}`, v, { pressSettings: names.pressSettings });
    };
    say(labelOf(`press:${key}`, names), value(before), value(after));
  }
  const press = ({ pressId }: Plan): string => names.presses?.[pressId] ?? 'another';
  if (before.pressId !== after.pressId) say('Press', press(before), press(after));
  say('Model', before.model ?? 'the press’s own', after.model ?? 'the press’s own');
  const known = {
    ...names,
    presses: Object.entries(names.presses ?? {}).map(([id, name]) => ({ id, name, version: '', model: '' })),
  };
  const axes = (p: Plan): string =>
    (p.axes ?? [])
      .map(a => `${labelOf(a.setting, names)} at ${a.values.map(v => valueLabel(a.setting, v, known)).join(', ')}`)
      .join('; ') || 'nothing';
  say('Stepped', axes(before), axes(after));
  return out;
}

function told(alternatives: Plan['alternatives']): string {
  return (
    Object.entries(alternatives ?? {})
      .map(([slot, values]) => `${slot}: ${values.join(', ')}`)
      .join('; ') || 'none'
  );
}

function bound(b: PlanBinding | null | undefined): string {
  return b && b.amount > 0
    ? `${b.amount} % in ${b.share.join(', ')}${b.anchor ? ', to an anchor' : ''}${b.words ? `, with “${b.words}”` : ''}`
    : 'not bound';
}

function lists(
  out: string[],
  what: string,
  before: readonly string[],
  after: readonly string[],
  name: (id: string) => string,
): void {
  const come = after.filter(id => !before.includes(id));
  const gone = before.filter(id => !after.includes(id));
  const few = (ids: string[]): string =>
    ids.length > 4 ? `${ids.slice(0, 3).map(name).join(', ')} and ${ids.length - 3} more` : ids.map(name).join(', ');
  if (come.length > 0 && gone.length > 0) out.push(`${what}: ${few(come)} in place of ${few(gone)}`);
  else if (come.length > 0) out.push(`${what}: ${few(come)} too`);
  else if (gone.length > 0) out.push(`${what}: without ${few(gone)}`);
}
