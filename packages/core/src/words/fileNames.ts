/** What a naming rule can use. */
export interface NameFacts {
  run: string;
  subject: string;
  look: string;
  take: number;
  seed: number;
  format: string;
  grade: number | null;
}

export const NAME_TAGS = ['run', 'subject', 'look', 'take', 'seed', 'format', 'grade'] as const;

/** Small letters, digits and hyphens: a name every file system takes. */
export function plainName(text: string): string {
  return (
    text
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 100) || 'untitled'
  );
}

/** Fills a naming rule such as `{{subject}}-{{take}}`. Returns null and the fault when a tag is not known. */
export function fillName(rule: string, facts: NameFacts): { name: string } | { fault: string } {
  const unknown = [...rule.matchAll(/\{\{\s*(\w*)\s*\}\}/g)]
    .map(m => m[1])
    .find(tag => !(NAME_TAGS as readonly string[]).includes(tag));
  if (unknown !== undefined)
    return { fault: `The naming rule uses {{${unknown}}}; it can use ${NAME_TAGS.map(t => `{{${t}}}`).join(', ')}.` };
  return { name: plainName(rule.replace(/\{\{\s*(\w+)\s*\}\}/g, (_, tag: keyof NameFacts) => String(facts[tag] ?? ''))) };
}

/** Gives every name a file of its own: a second `radish` becomes `radish-2`. */
export function uniqueNames(names: string[]): string[] {
  const seen = new Map<string, number>();
  const used = new Set<string>();
  return names.map(name => {
    let n = seen.get(name) ?? 0;
    let candidate = name;
    do {
      n++;
      candidate = n === 1 ? name : `${name}-${n}`;
    } while (used.has(candidate));
    seen.set(name, n);
    used.add(candidate);
    return candidate;
  });
}
