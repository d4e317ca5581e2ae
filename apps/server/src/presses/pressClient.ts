import { performance } from 'node:perf_hooks';
import { capabilitiesSchema, type Capabilities, type CheckResult, type ChecksRequest, type Render } from '@zinc/contract';
import type { Ticket } from '@zinc/core';

/** The press could not be reached or answered out of turn. `mayRetry` tells whether another try can help. */
export class PressError extends Error {
  override name = 'PressError';
  constructor(
    message: string,
    /** It does not answer, has too much to do just now, or did wrong. */
    readonly kind: 'gone' | 'busy' | 'fault',
    readonly mayRetry: boolean,
    readonly waitSeconds = 0,
    /** What it answered with over HTTP, when it did. */
    readonly status: number | null = null,
  ) {
    super(message);
  }
}

const KEEP_MS = 3000;
const ASK_MS = 5000;

/** Speaks the press contract (docs/press-contract.yaml) to one press. */
export class PressClient {
  private known: { at: number; value: Capabilities | null } | null = null;
  private asking: Promise<Capabilities | null> | null = null;

  constructor(
    private readonly url: string,
    private readonly token: string,
    /** Seconds that an image may be in painting without any progress; one that waits for its turn may take five times as long. */
    private readonly patience = 120,
  ) {}

  private async call(
    method: string,
    path: string,
    options: { body?: string | Uint8Array<ArrayBuffer>; headers?: Record<string, string>; signal?: AbortSignal } = {},
  ): Promise<Response> {
    let response: Response;
    try {
      response = await fetch(`${this.url}${path}`, {
        method,
        body: options.body,
        headers: { authorization: `Bearer ${this.token}`, ...options.headers },
        signal: options.signal ?? AbortSignal.timeout(20_000),
      });
    } catch (error) {
      this.known = { at: performance.now(), value: null };
      throw new PressError(`The press does not answer (${(error as Error).message}).`, 'gone', true);
    }
    if (response.ok || (method === 'HEAD' && response.status === 404)) return response;
    const document = (await response.json().catch(() => null)) as { detail?: string } | null;
    const detail = document?.detail ?? `The press answered ${response.status}.`;
    const wait = Number(response.headers.get('retry-after')) || 0;
    const mayRetry = response.status >= 500 || response.status === 429 || response.status === 404;
    const kind = response.status === 429 || response.status === 503 ? 'busy' : 'fault';
    throw new PressError(detail, kind, mayRetry, wait, response.status);
  }

  private async json<T>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
    ms?: number,
  ): Promise<T> {
    const response = await this.call(method, path, {
      body: body === undefined ? undefined : JSON.stringify(body),
      headers: { 'content-type': 'application/json', ...headers },
      signal: ms === undefined ? undefined : AbortSignal.timeout(ms),
    });
    let text: string;
    try {
      text = await response.text();
    } catch (error) {
      // A press that leaves in the middle of an answer is gone; it has done nothing wrong.
      throw new PressError(`The press does not answer (${(error as Error).message}).`, 'gone', true);
    }
    try {
      return JSON.parse(text) as T;
    } catch {
      throw new PressError('The press answered something that cannot be read.', 'fault', true);
    }
  }

  /**
   * What the press says of itself, at most 3 seconds old; null when it does not answer, or says nothing sensible. One that is away holds
   * nobody up: while it is asked again, it goes on being away.
   */
  async capabilities(): Promise<Capabilities | null> {
    if (!this.known || performance.now() - this.known.at > KEEP_MS)
      this.asking ??= this.ask()
        .catch(() => null)
        .then(value => {
          this.known = { at: performance.now(), value };
          this.asking = null;
          return value;
        });
    if (this.known?.value === null) return null;
    return this.asking ?? this.known!.value;
  }

  /** The same, asked now. Throws PressError when nothing answers, ValidationError when what answers does not keep to the contract. */
  async ask(): Promise<Capabilities> {
    return capabilitiesSchema.validate(await this.json('GET', '/v1/capabilities', undefined, {}, ASK_MS));
  }

  async check(checks: ChecksRequest['checks']): Promise<CheckResult[]> {
    return (await this.json<{ results: CheckResult[] }>('POST', '/v1/checks', { checks })).results;
  }

  async bringInput(sha256: string, bytes: () => Promise<Buffer>): Promise<void> {
    const there = await this.call('HEAD', `/v1/inputs/${sha256}`);
    if (there.status === 200) return;
    await this.call('PUT', `/v1/inputs/${sha256}`, {
      body: new Uint8Array(await bytes()),
      headers: { 'content-type': 'image/png' },
    });
  }

  order(ticket: Ticket, key: string): Promise<Render> {
    return this.json('POST', '/v1/renders', { ticket }, { 'idempotency-key': key });
  }

  look(id: string): Promise<Render> {
    return this.json('GET', `/v1/renders/${id}`);
  }

  async image(id: string): Promise<{ bytes: Buffer; pixels: string }> {
    const response = await this.call('GET', `/v1/renders/${id}/image`);
    try {
      return { bytes: Buffer.from(await response.arrayBuffer()), pixels: response.headers.get('x-pixel-hash') ?? '' };
    } catch {
      throw new PressError('The connection to the press broke while the image came.', 'fault', true);
    }
  }

  async cancel(id: string): Promise<void> {
    await this.call('DELETE', `/v1/renders/${id}`);
  }

  /** Orders a ticket under a key and waits for its image. `onWait` runs between looks and may throw to give up. */
  async make(ticket: Ticket, key: string, onWait: () => Promise<void> | void): Promise<{ bytes: Buffer; pixels: string }> {
    let render = await this.order(ticket, key);
    let moved = performance.now();
    for (let pause = 60; render.state === 'waiting' || render.state === 'painting'; pause = Math.min(250, pause * 1.3)) {
      await new Promise(resolve => setTimeout(resolve, pause));
      await onWait();
      const next = await this.look(render.id);
      if (next.state !== render.state || next.progress !== render.progress) moved = performance.now();
      render = next;
      const still = (performance.now() - moved) / 1000;
      if (still > this.patience * (render.state === 'waiting' ? 5 : 1)) {
        await this.cancel(render.id).catch(() => undefined);
        throw new PressError(`The press has not moved for ${Math.round(still)} s; it was told to let go.`, 'fault', true);
      }
    }
    if (render.state === 'made') return this.image(render.id);
    if (render.state === 'failed')
      throw new PressError(render.problem?.detail ?? 'The press failed.', 'fault', render.problem?.mayRetry ?? true);
    throw new PressError('The press cancelled the render.', 'fault', true);
  }
}
