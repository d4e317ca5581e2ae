/** So many images must have come before their speed says something. */
const ENOUGH = 4;

/** How fast images of a run arrive, as seen while it is watched; times in milliseconds. */
export class Arrivals {
  private from: { made: number; at: number } | null = null;

  /** Takes note of how many there are. A run that does not run has no speed; it is watched anew from when it goes on. */
  see(runs: boolean, made: number, at: number): void {
    if (!runs) this.from = null;
    else this.from ??= { made, at };
  }

  /** Seconds until so many more are there; null as long as too few were seen to arrive. */
  secondsFor(rest: number, made: number, at: number): number | null {
    const came = this.from ? made - this.from.made : 0;
    return came < ENOUGH ? null : (rest * (at - this.from!.at)) / came / 1000;
  }
}
