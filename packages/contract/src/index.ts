export * from './problems.ts';
export * from './prepare.ts';
export * from './press.ts';
export * from './presses.ts';
export * from './plan.ts';
export * from './api.ts';
export * from './codes.ts';
export * from './usage.ts';
export { ValidationError, type AnySchema, type ObjectSchema } from 'yup';
