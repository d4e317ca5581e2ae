import type { Box } from '../paint/options.ts';
import type { Share } from '../set/bind.ts';
import type { Style } from '../mix/style.ts';
import type { Ticket } from '../ticket/types.ts';
import type { Slot, TextPart } from '../words/template.ts';
import type { SeedPolicy } from './seeds.ts';

/** Stands where a look would, when a run is to be made without one. */
export const NO_LOOK = 'none';
export const PLAN_KINDS = ['set', 'testStrip', 'restyle'] as const;
export type PlanKind = (typeof PLAN_KINDS)[number];
export type SettingValue = number | string | boolean;

/** One setting stepped through several values, all else equal. What `setting` may be: see `axes.ts`. */
export interface Axis {
  setting: string;
  values: SettingValue[];
}

/** What belongs to one row of a plan only. */
export interface RowFill {
  fills?: Record<string, string>;
  /** Words said for this row beside the note of the plan. */
  note?: string;
  formatId?: string;
  /** The proof that this row follows, in place of the set's own middle. */
  anchor?: string;
}

/** How strongly the images of a set are tied, in whole per cent, in what, and to which proof; without an anchor to their own middle. */
export interface PlanBinding {
  amount: number;
  share: Share[];
  anchor: string | null;
  /** What is said of the anchor, and therefore of every bound image. */
  words?: string;
}

/** What a batch is to make. Percentages are whole numbers. */
export interface Plan {
  kind?: PlanKind;
  subjectIds: string[];
  /** Looks, or {@link NO_LOOK}. */
  lookIds: string[];
  /** null: the subject's wording stands alone. */
  templateId: string | null;
  fills: Record<string, string>;
  /** Slots with several values: every combination is made. */
  alternatives?: Record<string, string[]>;
  /** Words at the time of use; they stand last and say so. */
  note?: string;
  rows?: Record<string, RowFill>;
  formatIds: string[];
  takes: number;
  seedPolicy: SeedPolicy;
  seed: number;
  /** null: each look's own strength. */
  strength: number | null;
  binding?: PlanBinding | null;
  /** How closely content is kept, for subject and ground apart; null leaves it to the look. */
  fidelity?: { subject: number; ground: number } | null;
  /** How much of a content picture is kept and how it is read. */
  content?: { strength: number; read: Ticket['contents'][number]['read'] } | null;
  /** Areas left clear, parts of the frame. */
  clear?: Box[];
  /** Pictures placed exactly, by the hash they are kept under. */
  marks?: { sha256: string; box: Box }[];
  /** Settings that the press declares, beside strength. */
  settings?: Record<string, SettingValue>;
  model?: string | null;
  /** Settings stepped through, at most two. */
  axes?: Axis[];
  pressId: string;
  struckOut: string[];
}

/** A look at one of its settings: what it comes to when its parts, facets or version are stepped through. */
export interface ResolvedStyle {
  style: Style;
  version: number;
}

/** A press as tickets name it, with the model it uses by itself and, when more are known, all of them. */
export interface PlanPress {
  id: string;
  name: string;
  version: string;
  model: string;
  models?: string[];
  painterVersion?: number;
}

/** Everything a plan names, as it stands when the plan is read. */
export interface PlanLibrary {
  subjects: {
    id: string;
    label: string;
    wording: string;
    avoid: string[];
    pictureSha: string | null;
    /** Own colours, as #rrggbb. */
    colours?: string[];
  }[];
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
  /** Working copies of the marks, by the hash they are kept under. */
  marks?: Record<string, string>;
  /** Names of the looks' sources, by their ids. */
  sourceNames?: Record<string, string>;
  /** Looks at stepped settings, by {@link styleKey}. */
  styles?: Record<string, ResolvedStyle>;
  template: { id: string; version: number; text: string; avoid: string[]; slots: Slot[] } | null;
  formats: { id: string; name: string; width: number; height: number }[];
  brand: { avoid: string[]; never: { hex: string; radius: number }[] };
  press: PlanPress;
  /** Every press that can be stepped to. */
  presses?: PlanPress[];
  /** Settings that the press declares, with their defaults. */
  pressSettings?: { key: string; label: string; type: string; default: SettingValue; from?: number; to?: number }[];
}

/** What a stepped setting is in one cell, in words. */
export interface CellValue {
  setting: string;
  what: string;
  value: string;
}

/** One place in the grid of a batch: a subject in a look, at the values of what is stepped, in a format. */
export interface Cell {
  key: string;
  row: number;
  column: number;
  subjectId: string;
  lookId: string;
  formatId: string;
  values: CellValue[];
  struckOut: boolean;
  parts: TextPart[];
  text: string;
  avoid: string[];
  tickets: Ticket[];
  /** How strongly this cell is bound, in whole per cent, and to which proof when its row names one; null when it is free. */
  bind: { amount: number; anchor: string | null } | null;
}

export interface ExpandedPlan {
  cells: Cell[];
  /** Images that will be made: takes of the cells not struck out. */
  images: number;
}

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
