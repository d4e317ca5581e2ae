import type { PlanInput, PlanPreview } from '@zinc/contract';
import {
  checkTemplate,
  expandPlan,
  labOfHex,
  PlanError,
  preflight,
  type ExpandedPlan,
  type Plan,
  type PlanLibrary,
  type PreflightFacts,
  type Slot,
} from '@zinc/core';
import { eq, inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { findBrand, listFormats } from '../house/service.ts';
import { presses } from '../house/tables.ts';
import { selectLooks, textOfLook } from '../mix/service.ts';
import { looks } from '../mix/tables.ts';
import { pictures, styleReferences } from '../shelf/tables.ts';
import { oneTemplate, selectSubjects } from '../wording/service.ts';
import { subjects } from '../wording/tables.ts';
import { PressError } from './pressClient.ts';

export interface Planned {
  plan: Plan;
  library: PlanLibrary;
  expanded: ExpandedPlan;
  preview: PlanPreview;
  looks: Awaited<ReturnType<typeof selectLooks>>;
}

/** OKLab radius of a ΔE-like tolerance written on a brand colour. */
const toleranceRadius = (tolerance: number): number => tolerance / 100;

/** Reads everything a plan names, expands it and checks it. Throws at the field when the plan cannot be expanded. */
export async function planRun(context: Context, input: PlanInput): Promise<Planned> {
  const [template, subjectRows, lookRows, formats, brand, [press]] = await Promise.all([
    oneTemplate(context, input.templateId),
    selectSubjects(context, inArray(subjects.id, input.subjectIds)),
    selectLooks(context, inArray(looks.id, input.lookIds)),
    listFormats(context),
    findBrand(context),
    context.db.select().from(presses).where(eq(presses.id, input.pressId)),
  ]);
  const format = formats.find(f => f.id === input.formatId);
  if (!format) throw new ProblemError('badInput', 'Choose a format.', { field: 'formatId' });
  if (!press) throw new ProblemError('badInput', 'Choose a press.', { field: 'pressId' });
  const capabilities = (await context.press.capabilities()) ?? press.capabilities;
  const workingOf = await workingCopies(
    context,
    subjectRows.flatMap(s => (s.picture ? [s.picture.sha256] : [])),
  );
  const plan: Plan = input;
  const library: PlanLibrary = {
    subjects: subjectRows.map(s => ({
      id: s.id,
      label: s.label,
      wording: s.wording,
      avoid: s.avoid,
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
    template: {
      id: template.id,
      version: template.version,
      text: template.text,
      avoid: template.avoid,
      slots: template.slots as Slot[],
    },
    format,
    brand: {
      avoid: brand?.avoid ?? [],
      never: (brand?.colours ?? [])
        .filter(c => c.never && labOfHex(c.hex))
        .map(c => ({ hex: c.hex, radius: toleranceRadius(c.tolerance) })),
    },
    press: {
      id: press.id,
      name: press.name,
      version: capabilities?.version ?? '',
      model: capabilities?.models[0] ?? '',
      ...(capabilities?.painterVersion === undefined ? {} : { painterVersion: capabilities.painterVersion }),
    },
  };
  let expanded: ExpandedPlan;
  try {
    expanded = expandPlan(plan, library);
  } catch (error) {
    if (error instanceof PlanError) throw new ProblemError('badInput', error.message, { field: error.field });
    throw error;
  }
  const facts: PreflightFacts = {
    today: new Date().toISOString().slice(0, 10),
    checks: await askPress(context, expanded),
    subjects: subjectRows.map(s => ({ id: s.id, label: s.label, picture: s.picture })),
    format,
    sources: await sourceFacts(context, lookRows),
    overrides: input.licenceOverrides ?? [],
    templateFaults: checkTemplate(template.text, template.slots as Slot[]).map(f => f.message),
  };
  const preview: PlanPreview = {
    cells: expanded.cells.map(({ key, row, column, subjectId, lookId, struckOut, text, parts, avoid }) => ({
      key,
      row,
      column,
      subjectId,
      lookId,
      struckOut,
      text,
      parts,
      avoid,
    })),
    images: expanded.images,
    seconds:
      press.secondsPerImage === null
        ? null
        : (expanded.images * press.secondsPerImage * (format.width * format.height)) / 589_824,
    cost: expanded.images * (capabilities?.pricePerImage ?? 0),
    findings: preflight(plan, expanded, facts),
  };
  return { plan, library, expanded, preview, looks: lookRows };
}

async function workingCopies(context: Context, hashes: string[]): Promise<Map<string, string>> {
  if (hashes.length === 0) return new Map();
  const rows = await context.db
    .select({ sha256: pictures.sha256, working: pictures.working })
    .from(pictures)
    .where(inArray(pictures.sha256, hashes));
  return new Map(rows.map(r => [r.sha256, r.working]));
}

async function askPress(context: Context, expanded: ExpandedPlan): Promise<PreflightFacts['checks']> {
  const live = expanded.cells.filter(c => !c.struckOut);
  try {
    const results = await context.press.check(
      live.map(c => ({
        key: c.key,
        wording: c.tickets[0].subject.wording,
        text: c.text,
        contents: c.tickets[0].contents.map(p => p.sha256),
        settings: c.tickets[0].settings,
      })),
    );
    return Object.fromEntries(results.map(r => [r.key, r]));
  } catch (error) {
    if (error instanceof PressError) return null;
    throw error;
  }
}

async function sourceFacts(context: Context, lookRows: Planned['looks']): Promise<PreflightFacts['sources']> {
  const used = lookRows.flatMap(l =>
    l.latest.sources.filter(s => s.kind === 'reference' && s.parts > 0).map(s => ({ lookId: l.id, sha256: s.sha256 ?? '' })),
  );
  if (used.length === 0) return [];
  const rows = await context.db
    .select({
      id: styleReferences.id,
      sha256: styleReferences.sha256,
      name: styleReferences.name,
      ends: styleReferences.licenceEnds,
      width: pictures.width,
      height: pictures.height,
    })
    .from(styleReferences)
    .innerJoin(pictures, eq(pictures.sha256, styleReferences.sha256))
    .where(
      inArray(
        styleReferences.sha256,
        used.map(u => u.sha256),
      ),
    );
  return used.flatMap(u => {
    const r = rows.find(row => row.sha256 === u.sha256);
    return r
      ? [{ referenceId: r.id, name: r.name, lookId: u.lookId, width: r.width, height: r.height, licenceEnds: r.ends }]
      : [];
  });
}
