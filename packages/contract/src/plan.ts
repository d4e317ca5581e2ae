import type { PlanKind, RowFill, SeedPolicy, SettingValue, Share, Ticket } from '@zinc/core';
import { PLAN_KINDS, SHARES } from '@zinc/core';
import { array, mixed, number, object, string, type InferType, type Schema, type ValidationError } from 'yup';
import { id, maybe, percent, sha, text } from './fields.ts';

// What a run is to make. Everything left out is as it was before it could be said: no note, no stepping, nothing bound.

const lookId = () =>
  string()
    .matches(/^(none|[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12})$/, 'wanted a look, or none')
    .required();
const part = (name: string) => number().typeError(`${name} is a number from 0 to 1`).min(0).max(1).required();
const settingValue = () =>
  mixed<SettingValue>((v): v is SettingValue => ['number', 'string', 'boolean'].includes(typeof v)).required();

export const rowFillSchema = object({
  fills: mixed<Record<string, string>>(),
  note: text(300, 'The note of a row'),
  formatId: text(40, 'The format'),
  anchor: text(40, 'The anchor'),
}).noUnknown('Got a field a row has not');

export const bindingSchema = object({
  amount: percent('Bind').required('Say how strongly'),
  share: array(mixed<Share>().oneOf(SHARES).required()).min(1, 'A set must share something to be bound').required(),
  anchor: id().nullable().defined(),
  words: text(300, 'What is said of the anchor'),
});

/** Values by name, each checked alike. */
function byName<T>(each: Schema, most: number) {
  return mixed<Record<string, T>>().test('each', 'Wanted values by name', function (value: unknown) {
    if (value === undefined) return true;
    if (typeof value !== 'object' || value === null) return false;
    const entries = Object.entries(value);
    if (entries.length > most) return this.createError({ message: `Got ${entries.length} names; at most ${most} can be kept` });
    for (const [name, one] of entries)
      try {
        each.validateSync(one);
      } catch (error) {
        const { path, message } = error as ValidationError;
        return this.createError({ path: [this.path, name, path].filter(Boolean).join('.'), message });
      }
    return true;
  });
}

export const planSchema = object({
  kind: mixed<PlanKind>().oneOf(PLAN_KINDS),
  name: text(120, 'The name').required('Name the run'),
  campaignId: text(40, 'The campaign').nullable(),
  subjectIds: array(id()).min(1, 'Choose at least one subject').max(500).required(),
  lookIds: array(lookId()).min(1, 'Choose at least one look, or no look').max(8, 'At most 8 looks in one run').required(),
  templateId: id().nullable().defined(),
  fills: mixed<Record<string, string>>().required(),
  alternatives: byName<string[]>(array(text(200, 'A value').required()).max(24, 'At most 24 values').required(), 6),
  note: text(500, 'The note'),
  rows: byName<RowFill>(rowFillSchema, 500),
  formatIds: array(id()).min(1, 'Choose at least one format').max(6, 'At most 6 formats in one run').required(),
  takes: number()
    .typeError('Takes must be a number')
    .integer('Takes are whole numbers')
    .min(1, 'A cell needs at least 1 take')
    .max(12, 'At most 12 takes a cell')
    .required('Say how many takes'),
  seedPolicy: mixed<SeedPolicy>().oneOf(['one', 'subject', 'fresh']).required(),
  seed: number().integer().min(0).max(4294967295).required(),
  strength: percent('The strength').nullable().defined(),
  binding: maybe(bindingSchema),
  fidelity: maybe(object({ subject: percent('Fidelity').required(), ground: percent('Fidelity of the ground').required() })),
  content: maybe(
    object({
      strength: percent('How much of the picture is kept').required(),
      read: mixed<Ticket['contents'][number]['read']>().oneOf(['areas', 'tone', 'outline']).required(),
    }),
  ),
  clear: array(object({ x: part('x'), y: part('y'), width: part('The width'), height: part('The height') }).required()).max(
    8,
    'At most 8 areas can be left clear',
  ),
  marks: array(
    object({
      sha256: sha(),
      box: object({ x: part('x'), y: part('y'), width: part('The width'), height: part('The height') }).required(),
    }).required(),
  ).max(4, 'At most 4 marks can be placed'),
  settings: byName<SettingValue>(settingValue(), 40),
  model: text(120, 'The model').nullable(),
  axes: array(
    object({
      setting: text(120, 'The setting').required('Say which setting is stepped'),
      values: array(settingValue()).max(24, 'At most 24 values fit in a strip').required(),
    }).required(),
  ).max(2, 'At most two settings can be stepped at once'),
  pressId: id(),
  struckOut: array(string().required()).required(),
  /** Cells to be made first; the rest is added after a look at them. */
  pilot: number().integer('A pilot is a whole number of cells').min(1, 'A pilot needs at least 1 cell').max(100).nullable(),
  /** Licences that ended and are used all the same: a lead says why, and it is kept with the batch. */
  licenceOverrides: array(
    object({
      referenceId: id(),
      reason: text(300, 'The reason').min(8, 'Say why in a few words').required('Say why'),
    }).required(),
  ).max(40),
});
export type PlanInput = InferType<typeof planSchema>;
