import { MIXER_VERSION, type Style } from '../mix/style.ts';
import { MEASURE_VERSION } from '../measure/types.ts';
import { hashText } from '../number/random.ts';
import { TICKET_VERSION, type Ticket } from '../ticket/types.ts';
import { fillTemplate, joinParts, type Slot, type TextPart } from '../words/template.ts';
import { seedFor, type SeedPolicy } from './seeds.ts';

/** What a batch is to make. Percentages are whole numbers. */
export interface Plan {
  subjectIds: string[];
  lookIds: string[];
  templateId: string;
  fills: Record<string, string>;
  formatId: string;
  takes: number;
  seedPolicy: SeedPolicy;
  seed: number;
  /** null: each look's own strength. */
  strength: number | null;
  pressId: string;
  struckOut: string[];
}

/** Everything a plan names, as it stands when the plan is read. */
export interface PlanLibrary {
  subjects: { id: string; label: string; wording: string; avoid: string[]; pictureSha: string | null }[];
  looks: {
    id: string;
    name: string;
    version: number;
    strength: number;
    /** Phrases that stand before the subject; they come from word styles. */
    before?: string[];
    words: string[];
    avoid: string[];
    style: Style;
  }[];
  template: { id: string; version: number; text: string; avoid: string[]; slots: Slot[] };
  format: { id: string; name: string; width: number; height: number };
  brand: { avoid: string[]; never: { hex: string; radius: number }[] };
  press: { id: string; name: string; version: string; model: string; painterVersion?: number };
}

/** One place in the grid of a batch: a subject in a look. */
export interface Cell {
  key: string;
  row: number;
  column: number;
  subjectId: string;
  lookId: string;
  struckOut: boolean;
  parts: TextPart[];
  text: string;
  avoid: string[];
  tickets: Ticket[];
}

export interface ExpandedPlan {
  cells: Cell[];
  /** Images that will be made: takes of the cells not struck out. */
  images: number;
}

/** More than this many images in one batch is refused. */
export const MOST_IMAGES = 2000;

/** A plan that cannot be expanded, with the field it fails at. */
export class PlanError extends Error {
  override name = 'PlanError';
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message);
  }
}

/** The identity of a cell in its batch, from what it shows and how. */
export function cellKey(subjectId: string, lookId: string, formatId: string): string {
  return `${subjectId}/${lookId}/${formatId}`;
}

/** Expands a plan into cells with complete tickets: the same on a screen and on the server. Throws PlanError at the field. */
export function expandPlan(plan: Plan, library: PlanLibrary): ExpandedPlan {
  if (plan.subjectIds.length === 0) throw new PlanError('subjectIds', 'Got no subjects; choose at least one.');
  if (plan.lookIds.length === 0) throw new PlanError('lookIds', 'Got no looks; choose at least one.');
  if (!Number.isInteger(plan.takes) || plan.takes < 1 || plan.takes > 12)
    throw new PlanError('takes', `Got ${plan.takes} takes; wanted a whole number from 1 to 12.`);
  const twice = plan.subjectIds.find((id, i) => plan.subjectIds.indexOf(id) !== i);
  if (twice) {
    const label = library.subjects.find(s => s.id === twice)?.label ?? twice;
    throw new PlanError('subjectIds', `"${label}" is in the plan twice; take one of them out.`);
  }
  const asked = plan.subjectIds.length * plan.lookIds.length * plan.takes;
  if (asked > MOST_IMAGES)
    throw new PlanError(
      'takes',
      `This would be ${asked} images; one batch can hold ${MOST_IMAGES}. Lower the takes, or split the subjects.`,
    );
  const struck = new Set(plan.struckOut);
  const cells: Cell[] = [];
  plan.subjectIds.forEach((subjectId, row) =>
    plan.lookIds.forEach((lookId, column) => {
      const subject = library.subjects.find(s => s.id === subjectId);
      if (!subject)
        throw new PlanError('subjectIds', `The subject ${subjectId} is not in the house any more; take it out of the plan.`);
      const look = library.looks.find(l => l.id === lookId);
      if (!look) throw new PlanError('lookIds', `The look ${lookId} is not in the house any more; take it out of the plan.`);
      const key = cellKey(subjectId, lookId, plan.formatId);
      const { template } = library;
      const parts = fillTemplate(template.text, template.slots, { ...plan.fills, subject: subject.wording });
      if (look.before?.length) parts.unshift({ from: 'look', words: `${look.before.join(', ')}, ` });
      if (look.words.length > 0) parts.push({ from: 'look', words: `, ${look.words.join(', ')}` });
      const avoid = [...new Set([...template.avoid, ...look.avoid, ...subject.avoid, ...library.brand.avoid])];
      const lettering = template.slots
        .filter(s => s.kind === 'lettering')
        .map(s => plan.fills[s.name] ?? s.default ?? '')
        .filter(t => t !== '');
      const text = joinParts(parts);
      const struckOut = struck.has(key);
      const tickets = Array.from({ length: plan.takes }, (_, i): Ticket => {
        const take = i + 1;
        return {
          ticket: TICKET_VERSION,
          press: library.press,
          text: { parts, final: text, avoid, lettering },
          subject: { id: subject.id, label: subject.label, wording: subject.wording, identity: hashText(subject.id) },
          contents: subject.pictureSha ? [{ sha256: subject.pictureSha, strength: 100, read: 'areas' }] : [],
          look: {
            id: look.id,
            version: look.version,
            name: look.name,
            mixer: MIXER_VERSION,
            measure: MEASURE_VERSION,
            style: look.style,
          },
          format: { name: library.format.name, width: library.format.width, height: library.format.height, fit: 'crop' },
          never: library.brand.never,
          seed: seedFor(plan.seedPolicy, plan.seed, subject.id, key, take),
          take,
          settings: { strength: plan.strength ?? look.strength },
          parents: [],
        };
      });
      cells.push({ key, row, column, subjectId, lookId, struckOut, parts, text, avoid, tickets });
    }),
  );
  return { cells, images: cells.filter(c => !c.struckOut).length * plan.takes };
}
