import { labDistance2 } from '../colour/oklab.ts';
import { labelOf, valueLabel } from './axes.ts';
import type { Finding, PreflightFacts } from './preflight.ts';
import type { Cell } from './types.ts';

/** From this mean OKLab distance on, a subject's own colours are far from those of the look. */
const FAR_COLOURS = 0.16;
/** Cropping away more than this share of a picture is told. */
const CROPPED = 0.35;

/** Looks whose references give colour, over subjects whose own colours lie far from theirs. */
export function checkLeaks(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  const out: Finding[] = [];
  for (const look of facts.looks ?? []) {
    if (!look.coloursFromReferences) continue;
    const far = facts.subjects.filter(s => {
      const cell = live.find(c => c.subjectId === s.id && c.lookId === look.id);
      const palette = cell?.tickets[0].look.style.palette ?? [];
      if (!s.palette?.length || palette.length === 0) return false;
      const off = s.palette.map(c => Math.sqrt(Math.min(...palette.map(q => labDistance2(c, q)))));
      return off.reduce((sum, v) => sum + v, 0) / off.length > FAR_COLOURS;
    });
    if (far.length === 0) continue;
    const ids = new Set(far.map(s => s.id));
    out.push({
      code: 'leakRisk',
      severity: 'note',
      message: `${look.name} takes its colours from pictures, and they lie far from those of ${far.map(s => s.label).join(', ')}: the subject would take colours that are not its own.`,
      cells: live.filter(c => c.lookId === look.id && ids.has(c.subjectId)).map(c => c.key),
      mend: { action: 'openLook', label: 'Take only its manner', lookId: look.id },
    });
  }
  return out;
}

/** What a cell has of a setting; null when it is no number there. */
function valueIn({ bind, tickets: [ticket] }: Cell, setting: string): number | null {
  if (setting === 'bind') return bind?.amount ?? 0;
  if (setting === 'fidelity') return ticket.fidelity?.subject ?? null;
  const value = ticket.settings[setting.replace(/^press:/, '') as 'strength'] as unknown;
  return typeof value === 'number' ? value : null;
}

/** Values outside every range that people found good for a look and for such subjects. */
export function checkRanges(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  const out: Finding[] = [];
  const tags = new Map(facts.subjects.map(s => [s.id, s.tags ?? []]));
  const ranges = facts.ranges ?? [];
  for (const key of new Set(ranges.map(r => `${r.lookId} ${r.setting}`))) {
    const [lookId, setting] = key.split(' ');
    const own = ranges.filter(r => r.lookId === lookId && r.setting === setting);
    const everyTag = new Set([...tags.values()].flat());
    const off: { cell: Cell; value: number; near: (typeof own)[0] }[] = [];
    for (const cell of live) {
      if (cell.lookId !== lookId || cell.values.some(v => v.setting === setting)) continue;
      // What is good for a kind of subject says nothing of others; what is said in other words holds for all.
      const holds = own.filter(r => !everyTag.has(r.goodFor) || tags.get(cell.subjectId)?.includes(r.goodFor));
      const value = valueIn(cell, setting);
      if (value === null || holds.length === 0 || holds.some(r => value >= r.from && value <= r.to)) continue;
      const far = (r: (typeof own)[0]): number => Math.max(r.from - value, value - r.to);
      off.push({ cell, value, near: [...holds].sort((p, q) => far(p) - far(q))[0] });
    }
    if (off.length === 0) continue;
    const [{ cell, value, near }] = off;
    const to = value > near.to ? near.to : near.from;
    const known = { pressSettings: facts.pressSettings };
    const what = setting === 'strength' ? '' : ` with ${labelOf(setting, known).toLowerCase()}`;
    const said = (v: number): string => valueLabel(setting, v, known);
    out.push({
      code: 'outsideRange',
      severity: 'note',
      message: `${cell.tickets[0].look.name}${what} at ${said(value)} lies outside the ${said(near.from)} to ${said(near.to)} that were found good for ${near.goodFor}.`,
      cells: off.map(o => o.cell.key),
      mend: { action: 'setValue', label: `Set it to ${said(to)}`, setting, value: to },
    });
  }
  return out;
}

/** Content pictures of which a format would cut much away. */
export function checkFormats(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  const byFormat = new Map<string, { labels: string[]; cells: string[]; better: string | null }>();
  for (const s of facts.subjects) {
    if (!s.picture) continue;
    for (const c of live.filter(cell => cell.subjectId === s.id)) {
      const lost = lostOf(s.picture, c.tickets[0].format);
      if (lost <= CROPPED) continue;
      const best = [...facts.formats].sort((p, q) => lostOf(s.picture!, p) - lostOf(s.picture!, q))[0];
      const known = byFormat.get(c.formatId) ?? { labels: [], cells: [], better: null };
      if (!known.labels.includes(s.label)) known.labels.push(s.label);
      known.cells.push(c.key);
      if (best && lostOf(s.picture, best) < lost - 0.1) known.better = best.id;
      byFormat.set(c.formatId, known);
    }
  }
  return [...byFormat].map(([formatId, { labels, cells, better }]): Finding => {
    const name = facts.formats.find(f => f.id === formatId)?.name ?? 'this format';
    const other = facts.formats.find(f => f.id === better);
    return {
      code: 'formatFar',
      severity: 'note',
      message: `${name} has another shape than the picture of ${labels.join(', ')}: more than a third of it would be cut away.`,
      cells,
      mend: other && { action: 'setFormat', label: `Make them as ${other.name}`, formatId: other.id },
    };
  });
}

function lostOf(picture: { width: number; height: number }, format: { width: number; height: number }): number {
  const [p, q] = [picture.width / picture.height, format.width / format.height];
  return 1 - Math.min(p, q) / Math.max(p, q);
}

/** Settings that the press would not heed, and looks with more sources than it takes. */
export function checkSettings(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  const ignored = new Map<string, string[]>();
  for (const c of live)
    for (const key of facts.checks?.[c.key]?.ignoredSettings ?? []) ignored.set(key, [...(ignored.get(key) ?? []), c.key]);
  const out = [...ignored].map(([setting, cells]): Finding => ({
    code: 'settingUnknown',
    severity: 'note',
    message: `This press does not know the setting “${setting}” and would pass over it.`,
    cells,
    mend: { action: 'dropSetting', label: 'Leave it out', setting },
  }));
  for (const look of facts.looks ?? [])
    if (facts.mostSources !== undefined && look.sources > facts.mostSources)
      out.push({
        code: 'tooManySources',
        severity: 'must',
        message: `${look.name} has ${look.sources} sources; this press takes ${facts.mostSources}.`,
        cells: live.filter(c => c.lookId === look.id).map(c => c.key),
        mend: { action: 'openLook', label: 'Take some out', lookId: look.id },
      });
  return out;
}

/** More images than may be made, or than there is room for. */
export function checkBudget(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  const images = live.reduce((sum, c) => sum + c.tickets.length, 0);
  const out: Finding[] = [];
  for (const b of facts.budgets ?? [])
    if (images > b.left)
      out.push({
        code: 'overBudget',
        severity: 'must',
        message: `${images} images are more than the ${b.left} that ${b.of} may still make. Lower the takes, strike cells out, or ask a lead for more.`,
        cells: live.map(c => c.key),
      });
  if (facts.room && facts.room.needed > facts.room.free)
    out.push({
      code: 'noRoom',
      severity: 'must',
      message: `The images need about ${megabytes(facts.room.needed)}, and ${megabytes(facts.room.free)} are free. Make room, or make fewer.`,
      cells: live.map(c => c.key),
    });
  return out;
}

function megabytes(bytes: number): string {
  return bytes < 1e9 ? `${Math.ceil(bytes / 1e6)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
}
