/** One subject as pasted: a label for people and a wording for the generator. */
export interface PastedSubject {
  line: number;
  label: string;
  wording: string;
}

export interface SubjectListFault {
  line: number;
  message: string;
}

/**
 * Reads a pasted list, one subject a line: `label; wording`, `label<tab>wording`, or a label alone, which is its own wording in lower
 * case. Faults name their line: no label, too long, or twice in the list or the house (`known` labels).
 */
export function readSubjectList(
  text: string,
  known: readonly string[] = [],
): { subjects: PastedSubject[]; faults: SubjectListFault[] } {
  const subjects: PastedSubject[] = [];
  const faults: SubjectListFault[] = [];
  const seen = new Map<string, number>();
  const have = new Set(known.map(k => k.trim().toLowerCase()));
  text.split(/\r?\n/).forEach((raw, i) => {
    const line = i + 1;
    if (raw.trim() === '') return;
    const cut = raw.search(/[;\t]/);
    const label = (cut < 0 ? raw : raw.slice(0, cut)).trim();
    const wording = cut < 0 ? label.toLowerCase() : raw.slice(cut + 1).trim() || label.toLowerCase();
    const key = label.toLowerCase();
    if (label === '') faults.push({ line, message: `Line ${line} has no label before the wording.` });
    else if (label.length > 120)
      faults.push({ line, message: `Line ${line} has a label of ${label.length} characters; at most 120 can be kept.` });
    else if (wording.length > 500)
      faults.push({ line, message: `Line ${line} has a wording of ${wording.length} characters; at most 500 can be kept.` });
    else if (seen.has(key))
      faults.push({ line, message: `Line ${line} repeats "${label}" from line ${seen.get(key)}. Take one of them out.` });
    else if (have.has(key))
      faults.push({
        line,
        message: `Line ${line}: "${label}" is already a subject. Take it out, or give this one another label.`,
      });
    else {
      seen.set(key, line);
      subjects.push({ line, label, wording });
    }
  });
  return { subjects, faults };
}
