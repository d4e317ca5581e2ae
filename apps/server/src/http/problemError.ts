import { problem, type Problem, type ProblemCode } from '@zinc/contract';

/** An error that is answered as the problem document it carries. */
export class ProblemError extends Error {
  override name = 'ProblemError';
  readonly document: Problem;
  constructor(code: ProblemCode, detail: string, extra: { field?: string; findings?: unknown[] } = {}) {
    super(detail);
    this.document = problem(code, detail, extra);
  }
}

/** Whether an error says that a disk, or a share of it, is full. */
export function isDiskFull(error: unknown): boolean {
  return ['ENOSPC', 'EDQUOT'].includes((error as NodeJS.ErrnoException | null)?.code ?? '');
}
