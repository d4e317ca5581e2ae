import { statfs } from 'node:fs/promises';
import type { Capabilities, Format, Look, PlanInput, Subject } from '@zinc/contract';
import {
  draftWords,
  labOfHex,
  wordConflicts,
  wordsAround,
  type ExpandedPlan,
  type PreflightFacts,
  type SettingValue,
} from '@zinc/core';
import { and, eq, inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { lookRanges } from '../mix/tables.ts';
import { PressError } from '../presses/pressClient.ts';
import type { KnownPress } from '../presses/presses.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { letteringOf } from '../shelf/pictures.ts';
import { pictures, styleReferences } from '../shelf/tables.ts';
import { unclearWords } from '../wording/meanings.ts';
import { budgetsLeft } from './budgets.ts';
import { chainOf } from './chains.ts';

/** Bytes of a painted PNG for each of its pixels, as measured over the demo house's proofs, and a little more. */
const BYTES_A_PIXEL = 2;

interface About {
  input: PlanInput;
  expanded: ExpandedPlan;
  subjectRows: Subject[];
  lookRows: Look[];
  formats: Format[];
  presses: KnownPress[];
  capabilities: Capabilities | null;
  personId: string;
}

/** Everything that preflight is told about the world. */
export async function gatherFacts(context: Context, about: About): Promise<Omit<PreflightFacts, 'templateFaults'>> {
  const { input, expanded, subjectRows, lookRows, formats, presses, capabilities, personId } = about;
  const prints = await fingerprintsOf(context, [
    ...new Set([
      ...subjectRows.flatMap(s => (s.picture ? [s.picture.sha256] : [])),
      ...lookRows.flatMap(l => l.latest.sources.flatMap(s => (s.kind === 'reference' && s.sha256 ? [s.sha256] : []))),
    ]),
  ]);
  const chains = new Map(
    await Promise.all(
      subjectRows.map(async s => [s.id, s.picture ? (await chainOf(context, s.picture.sha256)).depth : 0] as const),
    ),
  );
  const unclear = new Map(unclearWords(subjectRows).map(u => [u.subjectId, u]));
  return {
    today: new Date().toISOString().slice(0, 10),
    checks: await askPresses(presses, expanded),
    subjects: subjectRows.map(s => {
      const word = unclear.get(s.id);
      return {
        id: s.id,
        label: s.label,
        tags: s.tags,
        picture: s.picture,
        palette: s.colours?.length
          ? s.colours.map(labOfHex)
          : s.picture
            ? prints[s.picture.sha256]?.colour.palette.filter(c => c.share > 0.06)
            : [],
        chained: chains.get(s.id) ?? 0,
        unclear: word ? { word: word.word, senses: word.senses.map(m => m.gloss) } : null,
      };
    }),
    formats,
    sources: await sourceFacts(context, lookRows, prints),
    looks: lookRows.map(l => {
      const used = l.latest.sources.filter(s => s.parts > 0);
      return {
        id: l.id,
        name: l.name,
        sources: used.length,
        coloursFromReferences:
          used.some(s => s.kind === 'reference' && s.facets.includes('colour')) && !used.some(s => s.kind === 'palette'),
        carried: carriedWords(l, prints),
      };
    }),
    ranges: await rangeFacts(
      context,
      lookRows.map(l => l.id),
    ),
    pressSettings: capabilities?.settings.map(x => ({ ...x, default: x.default as SettingValue })),
    mostSources: capabilities?.limits.mostSources,
    budgets: await budgetsLeft(context, input.campaignId ?? null, personId),
    room: await roomFor(context, expanded),
    overrides: input.licenceOverrides ?? [],
  };
}

/** What the presses would draw of each cell; null when one of them does not answer. */
async function askPresses(presses: readonly KnownPress[], expanded: ExpandedPlan): Promise<PreflightFacts['checks']> {
  const live = expanded.cells.filter(c => !c.struckOut);
  const answers = await Promise.all(
    presses.map(press =>
      askPress(
        press,
        live.filter(c => c.tickets[0].press.id === press.row.id),
      ),
    ),
  );
  return answers.includes(null) ? null : Object.assign({}, ...answers);
}

async function askPress({ client }: KnownPress, cells: ExpandedPlan['cells']): Promise<PreflightFacts['checks']> {
  if (cells.length === 0) return {};
  try {
    const results = await client.check(
      cells.map(c => ({
        key: c.key,
        wording: c.tickets[0].subject.wording,
        text: c.text,
        around: wordsAround(c.parts),
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

/** Words of a look that its references give by themselves. */
function carriedWords({ latest }: Look, prints: Awaited<ReturnType<typeof fingerprintsOf>>): string[] {
  const drafts = latest.sources.flatMap(s =>
    s.kind === 'reference' && s.parts > 0 && s.sha256 && prints[s.sha256]
      ? [{ draft: draftWords(prints[s.sha256]), facets: s.facets }]
      : [],
  );
  return wordConflicts(latest.words, drafts)
    .filter(c => c.kind === 'repeats')
    .map(c => c.word);
}

async function sourceFacts(
  context: Context,
  lookRows: readonly Look[],
  prints: Awaited<ReturnType<typeof fingerprintsOf>>,
): Promise<PreflightFacts['sources']> {
  const used = lookRows.flatMap(l =>
    l.latest.sources
      .filter(s => s.kind === 'reference' && s.parts > 0)
      .map(s => ({ lookId: l.id, sha256: s.sha256 ?? '', light: s.facets.includes('light') })),
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
  const lettering = await letteringOf(
    context,
    used.map(u => u.sha256),
  );
  return used.flatMap(u => {
    const r = rows.find(row => row.sha256 === u.sha256);
    if (!r) return [];
    const { id: referenceId, name, width, height, ends: licenceEnds } = r;
    const letters = (lettering[u.sha256] ?? []).reduce((sum, line) => sum + line.letters, 0);
    const bare = u.light ? (prints[u.sha256]?.light.bare ?? 0) : 0;
    return [{ referenceId, name, lookId: u.lookId, width, height, licenceEnds, bare, letters }];
  });
}

async function rangeFacts(context: Context, lookIds: string[]): Promise<PreflightFacts['ranges']> {
  if (lookIds.length === 0) return [];
  const rows = await context.db
    .select()
    .from(lookRanges)
    .where(and(inArray(lookRanges.lookId, lookIds), eq(lookRanges.withdrawn, false)));
  return rows.map(r => ({ lookId: r.lookId, setting: r.setting, from: r.from, to: r.to, goodFor: r.goodFor }));
}

async function roomFor(context: Context, expanded: ExpandedPlan): Promise<PreflightFacts['room']> {
  const pixels = expanded.cells
    .filter(c => !c.struckOut)
    .reduce((sum, { tickets }) => sum + tickets.length * tickets[0].format.width * tickets[0].format.height, 0);
  const { bavail, bsize } = await statfs(context.settings.data);
  return { needed: pixels * BYTES_A_PIXEL, free: bavail * bsize };
}
