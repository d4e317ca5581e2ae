import { createChannel, type Channel, type Session } from 'better-sse';
import { asc, gt, max } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database, Queries } from '../db/connect.ts';
import { events } from './eventTables.ts';

export interface HouseEvent {
  kind: string;
  about: string | null;
  who: string | null;
  data: Record<string, unknown>;
}

const LOOK_BACK = 60;
const PERIOD = 300;

/**
 * The house's event log. Writers add rows in their own transaction; every server reads new rows and passes them on to the browsers it
 * serves, so an event reaches everyone whichever server made it. Sequence numbers are taken before commit and may become visible out of
 * order, so each look goes back a little and skips what it has sent.
 */
export class EventLog {
  private readonly channel: Channel = createChannel();
  private last = 0;
  private readonly sent = new Set<number>();
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly db: Database,
    private readonly log: Logger,
  ) {}

  async add(
    db: Queries,
    kind: string,
    about: string | null,
    who: string | null,
    data: Record<string, unknown> = {},
  ): Promise<void> {
    await db.insert(events).values({ kind, about, who, data, at: new Date() });
  }

  listen(session: Session): void {
    this.channel.register(session);
  }

  async start(): Promise<void> {
    const [row] = await this.db.select({ last: max(events.seq) }).from(events);
    this.last = row.last ?? 0;
    for (let s = this.last - LOOK_BACK; s <= this.last; s++) this.sent.add(s);
    const tick = async (): Promise<void> => {
      try {
        if (this.channel.sessionCount > 0) await this.passOn();
      } catch (error) {
        this.log.warn({ err: error }, 'events could not be read');
      }
      if (this.timer) this.timer = setTimeout(() => void tick(), PERIOD);
    };
    this.timer = setTimeout(() => void tick(), PERIOD);
  }

  private async passOn(): Promise<void> {
    const rows = await this.db
      .select()
      .from(events)
      .where(gt(events.seq, this.last - LOOK_BACK))
      .orderBy(asc(events.seq))
      .limit(500);
    for (const row of rows) {
      if (this.sent.has(row.seq)) continue;
      this.sent.add(row.seq);
      this.last = Math.max(this.last, row.seq);
      this.channel.broadcast({ kind: row.kind, about: row.about, who: row.who, data: row.data } satisfies HouseEvent, 'change', {
        eventId: String(row.seq),
      });
    }
    for (const s of this.sent) if (s < this.last - 2 * LOOK_BACK) this.sent.delete(s);
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }
}
