import { LETTERING_FOUND } from '../drift/lettering.ts';
import type { Lab } from '../image/types.ts';
import { checkBudget, checkFormats, checkLeaks, checkRanges, checkSettings } from './checkSettings.ts';
import { checkWords } from './checkWords.ts';
import type { Cell, ExpandedPlan, Plan, PlanLibrary } from './types.ts';

/** Something about a plan that should be seen before anything is made. `must` findings stop the run until they are settled. */
export interface Finding {
  code:
    | 'notDrawn'
    | 'drawnAs'
    | 'fewerCells'
    | 'pictureTooSmall'
    | 'deepChain'
    | 'sourceTooSmall'
    | 'licenceEnded'
    | 'licenceEnds'
    | 'licenceOverridden'
    | 'sameText'
    | 'templateFault'
    | 'pressGone'
    | 'modifierNotDrawn'
    | 'twoMeanings'
    | 'contradiction'
    | 'saidTwice'
    | 'alreadyCarried'
    | 'colourNotThere'
    | 'leakRisk'
    | 'outsideRange'
    | 'sourceBackground'
    | 'sourceLettering'
    | 'formatFar'
    | 'settingUnknown'
    | 'tooManySources'
    | 'overBudget'
    | 'noRoom';
  severity: 'must' | 'note';
  message: string;
  cells: string[];
  /** Words of the final text that it is about. */
  words?: string[];
  mend?: {
    action:
      | 'strikeOut'
      | 'openReference'
      | 'prepareReference'
      | 'openWording'
      | 'useOriginal'
      | 'openSubject'
      | 'openLook'
      | 'restore'
      | 'overrideLicence'
      | 'setValue'
      | 'setFormat'
      | 'dropSetting';
    label: string;
    subjectId?: string;
    referenceId?: string;
    lookId?: string;
    formatId?: string;
    /** What is set to which value, or dropped; as axes name settings. */
    setting?: string;
    value?: number;
  };
}

/** What preflight is told about the world; it reads no clock and asks nobody. */
export interface PreflightFacts {
  /** Today as YYYY-MM-DD. */
  today: string;
  /** What the press says of each cell, by key; null when the press cannot be asked. */
  checks: Record<
    string,
    { verdict: 'drawable' | 'drawnAs' | 'notDrawn'; as?: string; detail?: string; ignored?: string[]; ignoredSettings?: string[] }
  > | null;
  subjects: {
    id: string;
    label: string;
    picture: { width: number; height: number } | null;
    /** How many outputs of ours lie one on another in its picture, the picture itself among them. */
    chained?: number;
    /** Colours of its own: those it was given, or those of its picture. */
    tags?: readonly string[];
    palette?: Lab[];
    /** A word of it that means several things, of which none was chosen. */
    unclear?: { word: string; senses: string[] } | null;
  }[];
  formats: { id: string; name: string; width: number; height: number }[];
  sources: {
    referenceId: string;
    name: string;
    lookId: string;
    width: number;
    height: number;
    licenceEnds: string | null;
    /** Share of bare ground that counts as part of the look; 0 when the look does not take its light. */
    bare?: number;
    /** How many marks in lines look like letters. */
    letters?: number;
  }[];
  /** Looks whose colours come from references, and how many sources each has. */
  looks?: {
    id: string;
    name: string;
    sources: number;
    coloursFromReferences: boolean;
    /** Its words that its sources give by themselves. */
    carried?: string[];
  }[];
  /** Values of a setting that people found good for a look, and for which subjects: all, or those with a tag. */
  ranges?: { lookId: string; setting: string; from: number; to: number; goodFor: string }[];
  pressSettings?: PlanLibrary['pressSettings'];
  /** Most sources of a look that the press takes; undefined when it has no such limit. */
  mostSources?: number;
  /** Images that may still be made, by whom; null without a budget. */
  budgets?: { of: string; left: number }[];
  /** Bytes that the images will take, and bytes that are free. */
  room?: { needed: number; free: number };
  templateFaults: string[];
  /** Licences that ended and are used all the same, with the reason that is kept. */
  overrides: { referenceId: string; reason: string }[];
}

/** From so many outputs in a chain on, the next would be one too many. */
const DEEPEST_CHAIN = 2;
const SOURCE_SIDE = 400;
const MOSTLY_BARE = 0.55;
/** Days before its end from which a licence is said to end soon. */
export const SOON_DAYS = 30;

/** Every finding of a plan, those that must be settled first. */
export function preflight(plan: Plan, expanded: ExpandedPlan, facts: PreflightFacts): Finding[] {
  const live = expanded.cells.filter(c => !c.struckOut);
  const findings: Finding[] = [
    ...facts.templateFaults.map((message): Finding => ({
      code: 'templateFault',
      severity: 'must',
      message,
      cells: live.map(c => c.key),
      mend: { action: 'openWording', label: 'Mend the wording' },
    })),
    ...checkDrawable(plan, live, facts),
    ...checkMissingCells(expanded, facts),
    ...checkPictures(live, facts),
    ...checkSources(live, facts),
    ...checkSameTexts(live, facts),
    ...checkWords(live, facts),
    ...checkLeaks(live, facts),
    ...checkRanges(live, facts),
    ...checkFormats(live, facts),
    ...checkSettings(live, facts),
    ...checkBudget(live, facts),
  ];
  return findings.sort((p, q) => (p.severity === q.severity ? 0 : p.severity === 'must' ? -1 : 1));
}

function labelOf(facts: PreflightFacts, id: string): string {
  return facts.subjects.find(s => s.id === id)?.label ?? id;
}

function checkDrawable(plan: Plan, live: Cell[], facts: PreflightFacts): Finding[] {
  if (!facts.checks)
    return [
      {
        code: 'pressGone',
        severity: 'note',
        message: 'The press does not answer, so nobody can say what it would draw. The run would wait until it is back.',
        cells: [],
      },
    ];
  const findings: Finding[] = [];
  for (const subjectId of plan.subjectIds) {
    const cells = live.filter(c => c.subjectId === subjectId);
    const said = cells.map(c => facts.checks![c.key]).find(Boolean);
    if (!said) continue;
    const label = labelOf(facts, subjectId);
    const keys = cells.map(c => c.key);
    const images = cells.reduce((sum, c) => sum + c.tickets.length, 0);
    if (said.verdict === 'notDrawn')
      findings.push({
        code: 'notDrawn',
        severity: 'must',
        message: `${label}: the press cannot draw it, and it has no picture of its own. ${images} ${images === 1 ? 'image' : 'images'} would fail.`,
        cells: keys,
        mend: { action: 'strikeOut', label: 'Leave it out', subjectId },
      });
    else if (said.verdict === 'drawnAs')
      findings.push({
        code: 'drawnAs',
        severity: 'note',
        message: `${label} would be drawn as “${said.as}”. Give it another wording if that is not meant.`,
        cells: keys,
      });
    if (said.ignored && said.ignored.length > 0)
      findings.push({
        code: 'modifierNotDrawn',
        severity: 'note',
        message: `${label}: the press does not draw ${said.ignored.map(w => `“${w}”`).join(', ')}.`,
        cells: keys,
      });
  }
  return mergeAlike(findings);
}

/** The same unheard words for many subjects are one finding, not many. */
function mergeAlike(findings: Finding[]): Finding[] {
  const out: Finding[] = [];
  const byWords = new Map<string, Finding[]>();
  for (const f of findings) {
    if (f.code !== 'modifierNotDrawn') {
      out.push(f);
      continue;
    }
    const words = f.message.slice(f.message.indexOf(':') + 1);
    byWords.set(words, [...(byWords.get(words) ?? []), f]);
  }
  for (const [words, alike] of byWords)
    out.push(
      alike.length === 1
        ? alike[0]
        : { ...alike[0], message: `${alike.length} subjects:${words}`, cells: alike.flatMap(f => f.cells) },
    );
  return out;
}

function checkMissingCells(expanded: ExpandedPlan, facts: PreflightFacts): Finding[] {
  const bySubject = new Map<string, Cell[]>();
  for (const c of expanded.cells) bySubject.set(c.subjectId, [...(bySubject.get(c.subjectId) ?? []), c]);
  const without = [...bySubject].filter(([, cells]) => cells.every(c => c.struckOut)).map(([id]) => id);
  if (without.length === 0) return [];
  const names = without.map(id => labelOf(facts, id)).join(', ');
  const many = bySubject.size;
  return [
    {
      code: 'fewerCells',
      severity: 'note',
      message: `${many - without.length} of ${many} subjects will be made; left out: ${names}.`,
      cells: expanded.cells.filter(c => without.includes(c.subjectId)).map(c => c.key),
      mend: { action: 'restore', label: 'Take them back in' },
    },
  ];
}

function checkPictures(live: Cell[], facts: PreflightFacts): Finding[] {
  const findings: Finding[] = [];
  for (const s of facts.subjects) {
    if (!s.picture) continue;
    const cells = live.filter(c => c.subjectId === s.id);
    if (cells.length === 0) continue;
    const scale = Math.max(
      ...cells.map(c => {
        const { width, height } = c.tickets[0].format;
        return Math.max(width / s.picture!.width, height / s.picture!.height);
      }),
    );
    if ((s.chained ?? 0) >= DEEPEST_CHAIN)
      findings.push({
        code: 'deepChain',
        severity: 'note',
        message: `${s.label}: its picture is the ${s.chained === 2 ? 'second' : s.chained === 3 ? 'third' : `${s.chained}th`} image of ours made one from another. Damage and stray detail pile up with each; begin from the original.`,
        cells: cells.map(c => c.key),
        mend: { action: 'useOriginal', label: 'Go back to the original', subjectId: s.id },
      });
    if (scale > 1.5)
      findings.push({
        code: 'pictureTooSmall',
        severity: 'note',
        message: `${s.label}: its picture is ${s.picture.width} × ${s.picture.height} and would be enlarged ${scale.toFixed(1)} times. Bring a larger one for clean edges.`,
        cells: cells.map(c => c.key),
      });
  }
  return findings;
}

function checkSources(live: Cell[], facts: PreflightFacts): Finding[] {
  const findings: Finding[] = [];
  const seen = new Set<string>();
  for (const source of facts.sources) {
    const cells = live.filter(c => c.lookId === source.lookId).map(c => c.key);
    if (cells.length === 0 || seen.has(source.referenceId)) continue;
    seen.add(source.referenceId);
    const mend = { action: 'openReference' as const, label: 'See the reference', referenceId: source.referenceId };
    if (Math.min(source.width, source.height) < SOURCE_SIDE)
      findings.push({
        code: 'sourceTooSmall',
        severity: 'note',
        message: `${source.name}, a source of the look, is only ${source.width} × ${source.height}; below ${SOURCE_SIDE} its line and texture are not measured well.`,
        cells,
        mend,
      });
    if ((source.bare ?? 0) > MOSTLY_BARE)
      findings.push({
        code: 'sourceBackground',
        severity: 'note',
        message: `${Math.round(source.bare! * 100)} % of ${source.name} is bare background, which counts as part of its look.`,
        cells,
        mend: { action: 'prepareReference', label: 'Crop or cut it out', referenceId: source.referenceId },
      });
    if (source.letters)
      findings.push({
        code: 'sourceLettering',
        severity: 'note',
        message: `${source.name} seems to carry lettering (${source.letters} marks in lines that look like letters); its marks would count as part of the look. Such a find is right about ${Math.round(LETTERING_FOUND.precision * 100)} times of 100.`,
        cells,
        mend: { action: 'prepareReference', label: 'Paint it out', referenceId: source.referenceId },
      });
    if (!source.licenceEnds) continue;
    const days = daysBetween(facts.today, source.licenceEnds);
    const override = facts.overrides.find(o => o.referenceId === source.referenceId);
    if (days < 0 && override)
      findings.push({
        code: 'licenceOverridden',
        severity: 'note',
        message: `The licence of ${source.name} ended on ${writtenDate(source.licenceEnds)}; it is used all the same: “${override.reason}”. This is kept with the run.`,
        cells,
        mend,
      });
    else if (days < 0)
      findings.push({
        code: 'licenceEnded',
        severity: 'must',
        message: `The licence of ${source.name} ended on ${writtenDate(source.licenceEnds)}. Renew it, leave it out of the look, or let a lead say why it is used all the same.`,
        cells,
        mend: { action: 'overrideLicence', label: 'Use it all the same', referenceId: source.referenceId },
      });
    else if (days <= SOON_DAYS)
      findings.push({
        code: 'licenceEnds',
        severity: 'note',
        message: `${source.name} may be used until ${writtenDate(source.licenceEnds)}.`,
        cells,
        mend,
      });
  }
  return findings;
}

function checkSameTexts(live: Cell[], facts: PreflightFacts): Finding[] {
  const byText = new Map<string, Cell[]>();
  for (const c of live) byText.set(`${c.lookId} ${c.text}`, [...(byText.get(`${c.lookId} ${c.text}`) ?? []), c]);
  return [...byText.values()]
    .filter(
      cells =>
        new Set(cells.map(c => c.subjectId)).size > 1 &&
        !cells.some(c => facts.subjects.find(s => s.id === c.subjectId)?.picture),
    )
    .map(cells => ({
      code: 'sameText' as const,
      severity: 'note' as const,
      message: `${[...new Set(cells.map(c => labelOf(facts, c.subjectId)))].join(' and ')} have the same final text.`,
      cells: cells.map(c => c.key),
    }));
}

function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** A date as people write it, such as 5 December 2026, from YYYY-MM-DD. */
export function writtenDate(date: string): string {
  const [y, m, d] = date.split('-').map(Number);
  return `${d} ${MONTHS[m - 1]} ${y}`;
}
