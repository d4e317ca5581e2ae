import { avoidedColours } from '../lexicon/avoid.ts';
import { MIXER_VERSION, neutralStyle } from '../mix/style.ts';
import { MEASURE_VERSION } from '../measure/types.ts';
import { hashText } from '../number/random.ts';
import { TICKET_VERSION, type Ticket } from '../ticket/types.ts';
import { fillTemplate, joinParts, slotFault, type TextPart } from '../words/template.ts';
import { axesOf, choicesOf, styleKey, valuesOf, type Choice } from './axes.ts';
import { seedFor } from './seeds.ts';
import { NO_LOOK, PlanError, type Cell, type ExpandedPlan, type Plan, type PlanLibrary, type RowFill } from './types.ts';

/** More than this many images in one batch is refused. */
export const MOST_IMAGES = 2000;

/** The identity of a cell in its batch, from what it shows and how; what is stepped counts by its values. */
export function cellKey(subjectId: string, lookId: string, formatId: string, choice: Choice = new Map()): string {
  const base = `${subjectId}/${lookId}/${formatId}`;
  if (choice.size === 0) return base;
  const told = [...choice].map(([setting, value]) => `${setting}=${String(value)}`).join('/');
  return `${base}/${hashText(told).toString(16).padStart(8, '0')}${hashText(`${told} again`).toString(16).padStart(8, '0')}`;
}

type Look = PlanLibrary['looks'][number];
type Subject = PlanLibrary['subjects'][number];

const noLook = (): Look => ({
  id: NO_LOOK,
  name: 'No look',
  version: 0,
  strength: 0,
  words: [],
  avoid: [],
  style: neutralStyle(),
});

/** Expands a plan into cells with complete tickets: the same on a screen and on the server. Throws PlanError at the field. */
export function expandPlan(plan: Plan, library: PlanLibrary): ExpandedPlan {
  const choices = choicesOf(axesOf(plan, library));
  refuse(plan, library, choices.length);
  const struck = new Set(plan.struckOut);
  const cells: Cell[] = [];
  plan.subjectIds.forEach((subjectId, row) => {
    const subject = library.subjects.find(s => s.id === subjectId);
    if (!subject)
      throw new PlanError('subjectIds', `The subject ${subjectId} is not in the house any more; take it out of the plan.`);
    const fill = plan.rows?.[subjectId] ?? {};
    let column = 0;
    for (const lookId of plan.lookIds) {
      const look = lookId === NO_LOOK ? noLook() : library.looks.find(l => l.id === lookId);
      if (!look) throw new PlanError('lookIds', `The look ${lookId} is not in the house any more; take it out of the plan.`);
      for (const choice of choices)
        for (const [k, formatId] of plan.formatIds.entries()) {
          const here = column++;
          // A row with a format of its own is made once, in that.
          if (fill.formatId && k > 0) continue;
          const cell = cellOf({ plan, library, subject, look, choice, formatId: fill.formatId ?? formatId, fill });
          cells.push({ ...cell, row, column: here, struckOut: struck.has(cell.key) });
        }
    }
  });
  return { cells, images: cells.filter(c => !c.struckOut).length * plan.takes };
}

function refuse(plan: Plan, library: PlanLibrary, combinations: number): void {
  if (plan.subjectIds.length === 0) throw new PlanError('subjectIds', 'Got no subjects; choose at least one.');
  if (plan.lookIds.length === 0) throw new PlanError('lookIds', 'Got no looks; choose at least one, or no look.');
  if (plan.formatIds.length === 0) throw new PlanError('formatIds', 'Got no formats; choose at least one.');
  if (!Number.isInteger(plan.takes) || plan.takes < 1 || plan.takes > 12)
    throw new PlanError('takes', `Got ${plan.takes} takes; wanted a whole number from 1 to 12.`);
  const twice = plan.subjectIds.find((id, i) => plan.subjectIds.indexOf(id) !== i);
  if (twice) {
    const label = library.subjects.find(s => s.id === twice)?.label ?? twice;
    throw new PlanError('subjectIds', `"${label}" is in the plan twice; take one of them out.`);
  }
  const own = plan.subjectIds.filter(id => plan.rows?.[id]?.formatId).length;
  const formats = (plan.subjectIds.length - own) * plan.formatIds.length + own;
  const asked = formats * plan.lookIds.length * combinations * plan.takes;
  if (asked > MOST_IMAGES)
    throw new PlanError(
      'takes',
      `This would be ${asked} images; one batch can hold ${MOST_IMAGES}. Lower the takes, or split the subjects.`,
    );
}

interface Place {
  plan: Plan;
  library: PlanLibrary;
  subject: Subject;
  look: Look;
  choice: Choice;
  formatId: string;
  fill: RowFill;
}

function cellOf(at: Place): Omit<Cell, 'row' | 'column' | 'struckOut'> {
  const { plan, library, subject, look, choice, formatId, fill } = at;
  const format = library.formats.find(f => f.id === formatId);
  if (!format) throw new PlanError('formatIds', `The format ${formatId} is not in the house any more; take it out of the plan.`);
  const number = (setting: string): number | undefined => choice.get(setting) as number | undefined;
  const bind = number('bind') ?? plan.binding?.amount ?? 0;
  const { parts, lettering } = wordsOf(at, bind > 0 ? plan.binding?.words : undefined);
  const text = joinParts(parts);
  const avoid = [...new Set([...(library.template?.avoid ?? []), ...look.avoid, ...subject.avoid, ...library.brand.avoid])];
  const never = [...library.brand.never, ...avoidedColours(avoid)];
  const key = cellKey(subject.id, look.id, formatId, choice);
  // What is stepped has no part in the seed: all else is equal.
  const seedKey = cellKey(subject.id, look.id, formatId);
  const resolved = library.styles?.[styleKey(look.id, choice)] ?? { style: look.style, version: look.version };
  const kept = number('fidelity');
  const fidelity = kept === undefined ? plan.fidelity : { subject: kept, ground: kept };
  const settings: Ticket['settings'] = {
    strength: look.id === NO_LOOK ? 0 : (number('strength') ?? plan.strength ?? look.strength),
  };
  for (const { key: name, default: usual } of library.pressSettings ?? [])
    if (name !== 'strength') settings[name] = choice.get(`press:${name}`) ?? plan.settings?.[name] ?? usual;
  const press = pressOf(plan, library, choice);
  const marks = (plan.marks ?? []).map(({ sha256, box }) => {
    const working = library.marks?.[sha256];
    if (!working) throw new PlanError('marks', 'A mark is not in the house any more; bring it again.');
    return { sha256: working, box };
  });
  const tickets = Array.from({ length: plan.takes }, (_, i): Ticket => {
    const take = i + 1;
    return {
      ticket: TICKET_VERSION,
      press,
      text: { parts, final: text, avoid, lettering },
      subject: {
        id: subject.id,
        label: subject.label,
        wording: subject.wording,
        identity: hashText(subject.id),
        ...(subject.colours?.length ? { colours: subject.colours } : {}),
      },
      contents: subject.pictureSha
        ? [{ sha256: subject.pictureSha, strength: plan.content?.strength ?? 100, read: plan.content?.read ?? 'areas' }]
        : [],
      look: {
        id: look.id,
        version: resolved.version,
        name: look.name,
        mixer: MIXER_VERSION,
        measure: MEASURE_VERSION,
        style: resolved.style,
      },
      format: {
        name: format.name,
        width: format.width,
        height: format.height,
        fit: 'crop',
        ...(plan.clear?.length ? { clear: plan.clear } : {}),
      },
      ...(marks.length > 0 ? { marks } : {}),
      ...(fidelity ? { fidelity } : {}),
      never,
      seed: seedFor(plan.seedPolicy, plan.seed, subject.id, seedKey, take),
      take,
      settings,
      parents: [],
    };
  });
  return {
    key,
    subjectId: subject.id,
    lookId: look.id,
    formatId,
    values: valuesOf(choice, library),
    parts,
    text,
    avoid,
    tickets,
    bind: bind > 0 ? { amount: bind, anchor: fill.anchor ?? plan.binding?.anchor ?? null } : null,
  };
}

/** The press of a cell and its model: what is stepped, what the plan says, what the press uses by itself. */
function pressOf(plan: Plan, library: PlanLibrary, choice: Choice): Ticket['press'] {
  const other = choice.get('press');
  const { models, ...press } = library.presses?.find(p => p.id === other) ?? library.press;
  const wanted = choice.get('model') ?? plan.model;
  return { ...press, model: wanted && (models?.includes(String(wanted)) ?? true) ? String(wanted) : press.model };
}

/** The text of a cell: template and fills, what is said of the anchor, what the look says around them, and what is said at the time of use. */
function wordsOf(
  { plan, library, subject, look, choice, fill }: Place,
  anchored?: string,
): { parts: TextPart[]; lettering: string[] } {
  const { template } = library;
  const fills: Record<string, string> = { ...plan.fills, ...fill.fills };
  for (const [setting, value] of choice) if (setting.startsWith('slot:')) fills[setting.slice(5)] = String(value);
  for (const slot of template?.slots ?? []) {
    const wrong = fills[slot.name] === undefined ? null : slotFault(slot, fills[slot.name]);
    if (wrong) throw new PlanError('fills', wrong);
  }
  const parts = template
    ? fillTemplate(template.text, template.slots, { ...fills, subject: subject.wording })
    : [{ from: 'subject' as const, words: subject.wording }];
  if (anchored?.trim()) parts.push({ from: 'anchor', words: `, ${anchored.trim()}` });
  for (const words of [plan.note, fill.note]) if (words?.trim()) parts.push({ from: 'override', words: `, ${words.trim()}` });
  if (look.before?.length) parts.unshift({ from: 'look', words: `${look.before.join(', ')}, ` });
  if (look.words.length > 0) parts.push({ from: 'look', words: `, ${look.words.join(', ')}` });
  const lettering = (template?.slots ?? [])
    .filter(s => s.kind === 'lettering')
    .map(s => fills[s.name] ?? s.default ?? '')
    .filter(t => t !== '');
  return { parts, lettering };
}
