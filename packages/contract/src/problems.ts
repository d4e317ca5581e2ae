/** Every problem the API can answer with (RFC 9457): one table, so that a code means one thing everywhere. */
export const PROBLEMS = {
  badInput: { status: 400, title: 'Something in the request is not as it should be' },
  notSignedIn: { status: 401, title: 'You are not signed in' },
  wrongSignIn: { status: 401, title: 'The address or the password is not right' },
  notAllowed: { status: 403, title: 'Your role does not allow this' },
  wrongOrigin: { status: 403, title: 'The request came from another site' },
  notFound: { status: 404, title: 'There is nothing at this address' },
  inTheWay: { status: 409, title: 'Something else is in the way' },
  changedMeanwhile: { status: 412, title: 'Someone changed this meanwhile' },
  tooLarge: { status: 413, title: 'The file is too large' },
  notAPicture: { status: 415, title: 'The file cannot be used as a picture' },
  notPossible: { status: 422, title: 'This cannot be done as asked' },
  tooMany: { status: 429, title: 'Too many tries' },
  broken: { status: 500, title: 'Something went wrong here' },
  pressGone: { status: 503, title: 'The press does not answer' },
  pressBusy: { status: 503, title: 'The press is busy' },
  noRoom: { status: 507, title: 'There is no room on the disk' },
  databaseGone: { status: 503, title: 'The database does not answer' },
} as const;

export type ProblemCode = keyof typeof PROBLEMS;

/** A problem document as it crosses the wire. `field` names the input at fault. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  code: ProblemCode;
  detail: string;
  field?: string;
  findings?: unknown[];
}

/** Builds the problem document for a code. */
export function problem(code: ProblemCode, detail: string, extra: { field?: string; findings?: unknown[] } = {}): Problem {
  const { status, title } = PROBLEMS[code];
  return { type: `urn:zinc-shelf:problem:${code}`, title, status, code, detail, ...extra };
}

/** Whether a value is a problem document. */
export function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'code' in value && 'detail' in value && 'status' in value;
}
