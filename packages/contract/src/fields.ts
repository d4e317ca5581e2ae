import type { Facet } from '@zinc/core';
import { array, mixed, number, string } from 'yup';

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
export const isoDate = () =>
  string().matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the date as YYYY-MM-DD', excludeEmptyString: true });
export const wordsList = () => array(text(80, 'A style word').min(1).required()).max(40, 'At most 40 words').required();
