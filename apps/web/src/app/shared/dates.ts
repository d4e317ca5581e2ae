const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const MOMENT = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' });

/** A day written out: 5 December 2026. */
export function writtenDay(iso: string): string {
  return DAY.format(new Date(iso));
}

/** A moment: 5 December, 14:20. */
export function writtenMoment(iso: string): string {
  return MOMENT.format(new Date(iso));
}

/** A span of time in plain words. */
export function writtenSpan(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  return `${(seconds / 3600).toFixed(1)} h`;
}
