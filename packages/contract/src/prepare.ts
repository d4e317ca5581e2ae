import type { Preparation } from '@zinc/core';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { id, maybe, text } from './fields.ts';

// How a variant of a reference is made. Places are parts (0–1) of the picture it is made from.

const part = () => number().typeError('Places are numbers from 0 to 1').min(-0.5).max(1.5).required();
const amount = (name: string) =>
  number()
    .typeError(`${name} must be a number`)
    .integer(`${name} is a whole percentage`)
    .min(0, `${name} goes from 0`)
    .max(100, `${name} goes to 100`);
const degrees = (name: string, most: number) =>
  number()
    .typeError(`${name} must be a number`)
    .integer(`${name} is in whole degrees`)
    .min(-most, `${name} goes from −${most}°`)
    .max(most, `${name} goes to ${most}°`);
export const points = () =>
  array(part())
    .min(2, 'A stroke needs a place')
    .max(4000, 'A stroke may have at most 2000 places; lift the brush now and then')
    .test('pairs', 'A stroke is a list of x, y, x, y …', list => !list || list.length % 2 === 0)
    .required();
export const strokeSize = () => number().min(0.001, 'The brush is too small').max(1, 'The brush is too large').required();
export const MOST_STROKES = 200;

export const treatmentSettingsSchema = object({
  roller: amount('Dry roller').required(),
  plate: amount('Worn plate').required(),
  dots: amount('Dots').required(),
  dotGap: number().integer().min(3, 'Dots are at least 3 apart').max(24, 'Dots are at most 24 apart').required(),
  soften: amount('Soften').required(),
  hue: degrees('The hue', 180).required(),
  grain: degrees('The grain', 90).required(),
}).noUnknown('Got a treatment this press does not know');

export const preparationSchema = object({
  paintOut: array(object({ points: points(), size: strokeSize() }).required()).max(MOST_STROKES),
  recolour: array(
    object({
      x: part(),
      y: part(),
      to: string()
        .matches(
          /^#[0-9a-f]{6}$/i,
          'Write the colour as six hexadecimal digits after #, such as #8e2a4b; it must lie inside sRGB',
        )
        .required(),
      reach: amount('The reach').required(),
      joined: boolean().required(),
    }).required(),
  ).max(20, 'At most 20 things can be recoloured'),
  cutOut: maybe(
    object({
      reach: amount('The reach').required(),
      pockets: boolean().required(),
      strokes: array(object({ points: points(), size: strokeSize(), stays: boolean().required() }).required())
        .max(MOST_STROKES)
        .required(),
    }),
  ),
  crop: maybe(object({ x: part(), y: part(), width: part(), height: part() })),
  treatment: maybe(treatmentSettingsSchema),
}).noUnknown('Got a part this has not');

export const variantInputSchema = object({
  name: text(120, 'The name').required('Name the variant'),
  preparation: preparationSchema.required(),
});
export type VariantInput = InferType<typeof variantInputSchema>;

export const treatmentInputSchema = object({
  name: text(80, 'The name').required('Name the treatment'),
  settings: treatmentSettingsSchema.required(),
});
export const keptTreatmentSchema = treatmentInputSchema.shape({ id: id(), addedBy: string().required() });
export type KeptTreatment = InferType<typeof keptTreatmentSchema>;

/** Where a variant came from, and how: its settings are never changed; other settings make another variant. */
export interface VariantOrigin {
  kind: 'variant';
  of: string;
  name: string;
  version: number;
  preparation: Preparation;
}
