import { array, number, object, string, type InferType } from 'yup';
import { id } from './fields.ts';

/** How one version of a look did: what was made with it, and what people said of that. */
export const lookUsageSchema = object({
  lookId: id(),
  version: number().required(),
  images: number().required(),
  /** Proofs with a standing verdict, and those of them that are kept, as they are or once mended. */
  decided: number().required(),
  kept: number().required(),
  /** Mean drift of its proofs from its target; null when none was measured. */
  drift: number().nullable().defined(),
  /** Subjects of which most, and of which few, were kept. */
  goodFor: array(string().required()).required(),
  badFor: array(string().required()).required(),
});
export type LookUsage = InferType<typeof lookUsageSchema>;
