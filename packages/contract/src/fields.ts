import type { Facet } from '@zinc/core';
import { array, mixed, number, string, type AnyObject, type InferType, type ObjectSchema, type Schema } from 'yup';

// Fields that many shapes share.
export const id = () =>
  string()
    .matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/, 'wanted an id')
    .required();
export const sha = () =>
  string()
    .matches(/^[0-9a-f]{64}$/, 'wanted a SHA-256')
    .required();
export const text = (most: number, name: string) => string().trim().max(most, `${name} may have at most ${most} characters`);
export const percent = (name: string) =>
  number()
    .integer(`${name} must be a whole percentage`)
    .min(0, `${name} must be 0 or more`)
    .max(100, `${name} must be 100 or less`);
export const grade = () =>
  number()
    .typeError('The grade must be a number')
    .integer('Grades are whole numbers')
    .min(0, 'Grades go from 0 to 9')
    .max(9, 'Grades go from 0 to 9')
    .nullable();
export const facetList = () => array(mixed<Facet>().oneOf(['colour', 'light', 'line', 'texture']).required()).required();
export const hexColour = () =>
  string().matches(
    /^#[0-9a-f]{6}$/i,
    'Write colours as six hexadecimal digits after #, such as #8e2a4b; they must lie inside sRGB',
  );
export const isoDate = () =>
  string().matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the date as YYYY-MM-DD', excludeEmptyString: true });
export const wordsList = () => array(text(80, 'A style word').min(1).required()).max(40, 'At most 40 words').required();
export const tagsList = () =>
  array(
    text(40, 'A tag')
      .matches(/^[^;,|]+$/, 'A tag has letters, digits and spaces, no ; , or |')
      .required(),
  ).max(20, 'At most 20 tags');
/** An object that may be left out; otherwise one left out would be made up from the defaults of its fields. */
export const maybe = <T extends AnyObject>(schema: ObjectSchema<T>) =>
  schema.default(undefined) as unknown as Schema<InferType<ObjectSchema<T>> | undefined, AnyObject, undefined, ''>;
