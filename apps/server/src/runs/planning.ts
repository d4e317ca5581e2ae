import type { Look, PlanInput, PlanPreview } from '@zinc/contract';
import {
  checkTemplate,
  expandPlan,
  labOfHex,
  PlanError,
  preflight,
  type ExpandedPlan,
  type Plan,
  type PlanPress,
  type PlanLibrary,
  type Slot,
} from '@zinc/core';
import { inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { findBrand, listFormats } from '../house/service.ts';
import { selectLooks, textOfLook } from '../mix/service.ts';
import { looks } from '../mix/tables.ts';
import type { KnownPress } from '../presses/presses.ts';
import { pictures } from '../shelf/tables.ts';
import { oneTemplate, selectSubjects } from '../wording/service.ts';
import { subjects } from '../wording/tables.ts';
import { costOf, secondsOf } from './estimate.ts';
import { gatherFacts } from './facts.ts';
import { steppedStyles } from './stepping.ts';

export interface Planned {
  plan: Plan;
  library: PlanLibrary;
  expanded: ExpandedPlan;
  preview: PlanPreview;
  looks: Look[];
}

/** OKLab radius of a ΔE-like tolerance written on a brand colour. */
const toleranceRadius = (tolerance: number): number => tolerance / 100;

/** Runs that were begun before there was more than one format kept it by itself. */
export function readPlan(stored: PlanInput & { formatId?: string }): PlanInput {
  return stored.formatIds ? stored : { ...stored, formatIds: stored.formatId ? [stored.formatId] : [] };
}

/** Reads everything a plan names, expands it and checks it. Throws at the field when the plan cannot be expanded. */
export async function planRun(context: Context, input: PlanInput, personId: string): Promise<Planned> {
  const [template, subjectRows, lookRows, formats, brand, presses] = await Promise.all([
    input.templateId ? oneTemplate(context, input.templateId) : null,
    selectSubjects(context, inArray(subjects.id, input.subjectIds)),
    selectLooks(context, inArray(looks.id, input.lookIds)),
    listFormats(context),
    findBrand(context),
    context.presses.all(),
  ]);
  if (input.formatIds.some(id => !formats.some(f => f.id === id)))
    throw new ProblemError('badInput', 'Choose a format of the house.', { field: 'formatIds' });
  const press = presses.find(p => p.row.id === input.pressId);
  if (!press) throw new ProblemError('badInput', 'Choose a press.', { field: 'pressId' });
  if (!press.row.inUse)
    throw new ProblemError('badInput', `${press.row.name} is out of use; choose another press.`, { field: 'pressId' });
  const capabilities = press.says ?? press.row.capabilities;
  if (input.model && capabilities && !capabilities.models.includes(input.model))
    throw new ProblemError(
      'badInput',
      `${press.row.name} has no model “${input.model}”; it has ${capabilities.models.join(', ')}.`,
      {
        field: 'model',
      },
    );
  const workingOf = await workingCopies(context, [
    ...subjectRows.flatMap(s => (s.picture ? [s.picture.sha256] : [])),
    ...(input.marks ?? []).map(m => m.sha256),
  ]);
  const plan = input as Plan;
  const library: PlanLibrary = {
    subjects: subjectRows.map(s => ({
      id: s.id,
      label: s.label,
      wording: s.wording,
      avoid: s.avoid,
      colours: s.colours,
      pictureSha: s.picture ? (workingOf.get(s.picture.sha256) ?? null) : null,
    })),
    looks: lookRows.map(l => ({
      id: l.id,
      name: l.name,
      version: l.latest.version,
      strength: l.latest.strength,
      ...textOfLook(l.latest),
      style: l.latest.style,
    })),
    marks: Object.fromEntries(
      (input.marks ?? []).flatMap(m => (workingOf.has(m.sha256) ? [[m.sha256, workingOf.get(m.sha256)!]] : [])),
    ),
    sourceNames: Object.fromEntries(lookRows.flatMap(l => l.latest.sources.map(s => [s.id, s.name] as const))),
    styles: await steppedStyles(context, input, lookRows),
    template: template && {
      id: template.id,
      version: template.version,
      text: template.text,
      avoid: template.avoid,
      slots: template.slots as Slot[],
    },
    formats,
    brand: {
      avoid: brand?.avoid ?? [],
      never: (brand?.colours ?? [])
        .filter(c => c.never && labOfHex(c.hex))
        .map(c => ({ hex: c.hex, radius: toleranceRadius(c.tolerance) })),
    },
    press: onTicket(press),
    presses: presses.filter(p => p.row.inUse).map(onTicket),
    pressSettings: capabilities?.settings.map(s => ({ ...s, default: s.default as string | number | boolean })) ?? [],
  };
  let expanded: ExpandedPlan;
  try {
    expanded = expandPlan(plan, library);
  } catch (error) {
    if (error instanceof PlanError) throw new ProblemError('badInput', error.message, { field: error.field });
    throw error;
  }
  if (input.pilot) expanded = pilotOf(expanded, input.pilot);
  const facts = await gatherFacts(context, { input, expanded, subjectRows, lookRows, formats, presses, capabilities, personId });
  const templateFaults = template ? checkTemplate(template.text, template.slots as Slot[]).map(f => f.message) : [];
  const preview: PlanPreview = {
    cells: expanded.cells.map(({ tickets, bind: _, ...cell }) => ({ ...cell, seeds: tickets.map(t => t.seed) })),
    images: expanded.images,
    seconds: secondsOf(expanded, presses),
    cost: costOf(expanded, presses),
    findings: preflight(plan, expanded, { ...facts, templateFaults }),
  };
  return { plan, library, expanded, preview, looks: lookRows };
}

/** A press as the tickets of a plan name it. */
function onTicket({ row, says }: KnownPress): PlanPress {
  const { version = '', models = [], painterVersion } = says ?? row.capabilities ?? {};
  return {
    id: row.id,
    name: row.name,
    version,
    model: models[0] ?? '',
    models,
    ...(painterVersion === undefined ? {} : { painterVersion }),
  };
}

/** The first cells of a plan, so many that every row and column is met as early as can be; the others are struck out for now. */
function pilotOf(expanded: ExpandedPlan, count: number): ExpandedPlan {
  const live = expanded.cells.filter(c => !c.struckOut);
  const columns = Math.max(...live.map(c => c.column), 0) + 1;
  // Down the diagonals: each further cell shows a subject and a column not seen yet, as long as there are any.
  const order = [...live].sort((p, q) => turnOf(p, columns) - turnOf(q, columns) || p.row - q.row);
  const chosen = new Set(order.slice(0, count).map(c => c.key));
  const cells = expanded.cells.map(c => ({ ...c, struckOut: c.struckOut || !chosen.has(c.key) }));
  const takes = live[0]?.tickets.length ?? 0;
  return { cells, images: cells.filter(c => !c.struckOut).length * takes };
}

function turnOf({ row, column }: { row: number; column: number }, columns: number): number {
  return (((column - row) % columns) + columns) % columns;
}

async function workingCopies(context: Context, hashes: string[]): Promise<Map<string, string>> {
  if (hashes.length === 0) return new Map();
  const rows = await context.db
    .select({ sha256: pictures.sha256, working: pictures.working })
    .from(pictures)
    .where(inArray(pictures.sha256, hashes));
  return new Map(rows.map(r => [r.sha256, r.working]));
}
