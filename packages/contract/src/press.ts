import type { Ticket } from '@zinc/core';
import { array, boolean, mixed, number, object, string, type InferType } from 'yup';

/** The wire between the server and a press; docs/press-contract.yaml says the same for people who write an adapter. */
export const settingSchema = object({
  key: string().required(),
  type: string().oneOf(['percent', 'integer', 'choice', 'boolean']).required(),
  label: string().required(),
  help: string().required(),
  from: number(),
  to: number(),
  choices: array(string().required()),
  default: mixed<number | string | boolean>().required(),
});

export const capabilitiesSchema = object({
  name: string().required(),
  version: string().required(),
  models: array(string().required()).min(1).required(),
  painterVersion: number(),
  repeatable: boolean().required(),
  limits: object({
    mostSide: number().required(),
    leastSide: number().required(),
    mostContents: number().required(),
    mostSources: number(),
  }).required(),
  settings: array(settingSchema).required(),
  facets: array(string().oneOf(['colour', 'light', 'line', 'texture']).required()).required(),
  abilities: array(string().required()).required(),
  draws: array(string().required()).required(),
  pricePerImage: number().required(),
  atOnce: number().integer().min(1).required(),
});
export type Capabilities = InferType<typeof capabilitiesSchema>;

export const checksRequestSchema = object({
  checks: array(
    object({
      key: string().required(),
      wording: string().defined(),
      text: string().defined(),
      /** Words beside the subject: those of the template and of notes. */
      around: string(),
      contents: array(string().required()).required(),
      settings: object().required(),
    }),
  )
    .max(2000)
    .required(),
});
export type ChecksRequest = InferType<typeof checksRequestSchema>;

export interface CheckResult {
  key: string;
  verdict: 'drawable' | 'drawnAs' | 'notDrawn';
  as?: string;
  detail?: string;
  ignored: string[];
  ignoredSettings: string[];
}

export const RENDER_STATES = ['waiting', 'painting', 'made', 'failed', 'cancelled'] as const;
export interface Render {
  id: string;
  state: (typeof RENDER_STATES)[number];
  progress: number;
  problem?: { code: string; detail: string; mayRetry: boolean };
  /** SHA-256 of the pixels, once made. */
  pixels?: string;
}

export interface RenderRequest {
  ticket: Ticket;
}

/** What the stand-in can be told to do wrong, for tests. */
export const MISBEHAVIOURS = ['slow', 'error', 'busy', 'stuck', 'cut', 'brokenPicture', 'wrongSize', 'otherPicture'] as const;
export const misbehaveSchema = object({
  how: string().oneOf(MISBEHAVIOURS).required(),
  times: number().integer().min(0).max(10_000).required(),
});
