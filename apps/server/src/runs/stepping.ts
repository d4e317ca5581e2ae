import type { Look, LookVersion, LookVersionInput, PlanInput } from '@zinc/contract';
import { choicesOf, facetsOf, isMixing, MixError, styleKey, type Choice, type ResolvedStyle } from '@zinc/core';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { mixSources, oneVersion } from '../mix/service.ts';

/** What looks come to where a plan steps their version, their facets or the parts of a source. */
export async function steppedStyles(
  context: Context,
  input: PlanInput,
  lookRows: readonly Look[],
): Promise<Record<string, ResolvedStyle>> {
  const axes = (input.axes ?? []).filter(a => isMixing(a.setting));
  if (axes.length === 0) return {};
  const out: Record<string, ResolvedStyle> = {};
  for (const look of lookRows)
    for (const choice of choicesOf(axes)) out[styleKey(look.id, choice)] = await resolve(context, look, choice);
  return out;
}

async function resolve(context: Context, look: Look, choice: Choice): Promise<ResolvedStyle> {
  const wanted = choice.get('lookVersion');
  const version: LookVersion = wanted === undefined ? look.latest : await versionOf(context, look, Number(wanted));
  const sources = version.sources.map(s => {
    const parts = choice.get(`parts:${s.id}`);
    const only = choice.get('facets');
    const facets = only === undefined ? null : facetsOf(only);
    return {
      ...s,
      parts: parts === undefined ? s.parts : Number(parts),
      facets: facets ? s.facets.filter(f => facets.includes(f)) : s.facets,
    };
  });
  if (choice.size === 1 && wanted !== undefined) return { style: version.style, version: version.version };
  const changed: LookVersionInput = { ...version, sources };
  try {
    return { style: (await mixSources(context, changed)).style, version: version.version };
  } catch (error) {
    if (error instanceof MixError)
      throw new ProblemError('badInput', `${look.name} cannot be mixed so: ${error.message}`, { field: 'axes' });
    throw error;
  }
}

async function versionOf(context: Context, look: Look, version: number): Promise<LookVersion> {
  if (!look.versions.some(v => v.version === version))
    throw new ProblemError('badInput', `${look.name} has no version ${version}; its newest is ${look.latest.version}.`, {
      field: 'axes',
    });
  return oneVersion(context, look.id, version);
}
