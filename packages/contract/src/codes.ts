import type { Fingerprint } from '@zinc/core';
import { array, boolean, mixed, number, object, string, type InferType } from 'yup';
import { SHELF_STATES, type ShelfState } from './api.ts';
import { grade, id, tagsList, text } from './fields.ts';

/** Own codes carry a style in themselves; foreign ones mean something only to the press they belong to. */
export const CODE_KINDS = ['own', 'foreign'] as const;
export type CodeKind = (typeof CODE_KINDS)[number];

const about = {
  name: text(120, 'The name'),
  grade: grade(),
  note: text(1000, 'The note'),
  tags: tagsList(),
  shelf: text(80, 'The shelf').min(1, 'The shelf needs a name'),
};

export const codeInputSchema = object({
  ...about,
  text: text(200, 'The code').required('Write the code'),
  press: text(80, 'The press').default(''),
});
export type CodeInput = InferType<typeof codeInputSchema>;
export const codePatchSchema = object({ ...about, state: mixed<ShelfState>().oneOf(SHELF_STATES) }).noUnknown(
  'Got a field this has not',
);
export const styleCodeSchema = object({
  id: id(),
  kind: mixed<CodeKind>().oneOf(CODE_KINDS).required(),
  text: string().required(),
  press: string().defined(),
  name: string().defined(),
  grade: number().nullable().defined(),
  note: string().defined(),
  tags: array(string().required()).required(),
  shelf: string().required(),
  state: mixed<ShelfState>().oneOf(SHELF_STATES).required(),
  revision: number().required(),
  addedAt: string().required(),
  addedBy: string().required(),
});
export type StyleCode = InferType<typeof styleCodeSchema>;

/** A code of this house or none yet, with how far it is from what was asked about. */
export const nearCodeSchema = object({
  text: string().required(),
  id: string().nullable().defined(),
  distance: number().required(),
});
export type NearCode = InferType<typeof nearCodeSchema>;
export const nearestInputSchema = object({ sha256: string(), lookId: string() });
export const fingerprintsSchema = object({ items: mixed<Record<string, Fingerprint>>().required() });

// --- bringing in years of codes from a spreadsheet

/** What a column of a spreadsheet may mean. */
export const CODE_COLUMNS = ['text', 'press', 'name', 'grade', 'note', 'tags', 'shelf'] as const;
export type CodeColumn = (typeof CODE_COLUMNS)[number];
/** Scales that other people grade on, each brought to 0–9. */
export const GRADE_SCALES = ['0–9', '1–5', '0–10', '0–100', 'A–F'] as const;
export type GradeScale = (typeof GRADE_SCALES)[number];

/** Which column of the spreadsheet holds something, from 0; left out when none does. */
const place = () => number().integer('A column is a whole number').min(0, 'Columns are counted from 0');
/** A cell that other programs would take for a formula is guarded with a leading '. */
export function guardCell(cell: string): string {
  return /^[=+\-@\t\r']/.test(cell) ? `'${cell}` : cell;
}

/** What a guarded cell says: the leading ' is no part of it. */
export function unguardCell(cell: string): string {
  return /^'[=+\-@\t\r']/.test(cell) ? cell.slice(1) : cell;
}

export const importPlanSchema = object({
  columns: object({
    text: place(),
    press: place(),
    name: place(),
    grade: place(),
    note: place(),
    tags: place(),
    shelf: place(),
  } satisfies Record<CodeColumn, unknown>).required(),
  scale: mixed<GradeScale>().oneOf(GRADE_SCALES, 'Choose the scale of the grades').required(),
  duplicates: mixed<'leave' | 'merge'>().oneOf(['leave', 'merge']).required(),
});
export type ImportPlan = InferType<typeof importPlanSchema>;
export interface RefusedRow {
  line: number;
  what: string;
  reason: string;
}
export const importPreviewSchema = object({
  encoding: string().required(),
  header: array(string().defined()).required(),
  rows: mixed<string[][]>().required(),
  count: number().required(),
  plan: importPlanSchema.required(),
});
export type ImportPreview = InferType<typeof importPreviewSchema>;
export const importResultSchema = object({
  id: string().nullable().defined(),
  added: number().required(),
  merged: number().required(),
  left: number().required(),
  refused: mixed<RefusedRow[]>().required(),
  mayUndo: boolean().required(),
});
export type ImportResult = InferType<typeof importResultSchema>;
export const undoResultSchema = object({
  removed: number().required(),
  restored: number().required(),
  kept: number().required(),
});
export type UndoResult = InferType<typeof undoResultSchema>;
