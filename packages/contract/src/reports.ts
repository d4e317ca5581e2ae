import { array, mixed, number, object, string, type InferType } from 'yup';
import { id, isoDate } from './fields.ts';
import { formatSchema } from './api.ts';

// What a campaign has and lacks, and what of everything gets kept.

/** One subject in one format of a campaign. */
export interface Covered {
  subjectId: string;
  formatId: string;
  made: number;
  kept: number;
  /** Proofs that one keeps and another drops. */
  disputed: number;
  undecided: number;
  /** The best of it: kept before others, then by grade, then by drift. */
  best: { proofId: string; runId: string; pictureSha: string; kept: boolean } | null;
}
export const coverageSchema = object({
  campaign: object({ id: id(), name: string().required(), ends: string().nullable().defined() }).required(),
  subjects: array(object({ id: id(), label: string().required() })).required(),
  formats: array(formatSchema.required()).required(),
  cells: mixed<Covered[]>().required(),
  hero: mixed<{ proofId: string; pictureSha: string; label: string; by: string }>().nullable().defined(),
  /** How the kept proofs hang together; null with fewer than two. */
  cohesion: number().nullable().defined(),
  kept: number().required(),
  runs: array(object({ id: id(), name: string().required() })).required(),
});
export type Coverage = InferType<typeof coverageSchema>;
export const heroInputSchema = object({ proofId: string().nullable().defined() });
export const endsInputSchema = object({ ends: isoDate().nullable().defined() });

export const KEPT_BY = ['look', 'strength', 'source', 'template', 'press', 'reviewer', 'subject'] as const;
export type KeptBy = (typeof KEPT_BY)[number];
/** How often something was kept, of what was decided; the interval is Wilson's at 95 %. */
export interface KeptShare {
  key: string;
  name: string;
  decided: number;
  kept: number;
  from: number;
  to: number;
  /** Proofs that speak for it, the newest first. */
  proofs: { id: string; runId: string; pictureSha: string; kept: boolean }[];
}
/** A recommendation that the figures suggest, for a person to accept. */
export interface LearntRange {
  lookId: string;
  lookName: string;
  version: number;
  from: number;
  to: number;
  goodFor: string;
  kept: number;
  decided: number;
  elsewhere: { kept: number; decided: number };
  proofIds: string[];
}
export const keptReportSchema = object({
  decided: number().required(),
  kept: number().required(),
  by: mixed<Record<KeptBy, KeptShare[]>>().required(),
  /** How many tries a kept image took: cells by the number of the take that was kept first. */
  tries: array(object({ tries: number().required(), cells: number().required() }).required()).required(),
  learnt: mixed<LearntRange[]>().required(),
});
export type KeptReport = InferType<typeof keptReportSchema>;
