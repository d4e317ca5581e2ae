import type { Person, Role } from '@zinc/contract';
import type { Request, Response } from 'express';
import type { AnySchema, InferType } from 'yup';
import type { Context } from '../context.ts';

export interface Call<B> {
  context: Context;
  req: Request<Record<string, string>>;
  res: Response;
  params: Record<string, string>;
  query: Record<string, string | undefined>;
  body: B;
  /** The one who calls; on routes for anyone this may be nobody, and `person` then throws. */
  person: Person;
}

export interface Route {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  path: string;
  roles: readonly Role[] | 'anyone';
  summary: string;
  body?: AnySchema;
  response?: AnySchema;
  status?: number;
  /** What the body is when it is not JSON. */
  upload?: string;
  /** What the answer is when it is not JSON. */
  produces?: string;
  query?: string[];
  handle(call: Call<unknown>): Promise<unknown> | unknown;
}

export const EVERYONE = ['lead', 'designer', 'reviewer'] as const;
export const MAKERS = ['lead', 'designer'] as const;
export const LEADS = ['lead'] as const;

/** Declares a route; the type of its body follows from the schema. */
export function route<S extends AnySchema>(
  def: Omit<Route, 'handle' | 'body'> & { body: S; handle(call: Call<InferType<S>>): unknown },
): Route;
export function route(def: Omit<Route, 'body' | 'handle'> & { handle(call: Call<undefined>): unknown }): Route;
export function route(def: unknown): Route {
  return def as Route;
}
