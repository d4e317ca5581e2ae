import { problem, type MISBEHAVIOURS, type Render } from '@zinc/contract';
import type { NextFunction, Request, Response } from 'express';
import sharp from 'sharp';

type How = (typeof MISBEHAVIOURS)[number];

/** Wrong behaviour on demand, so that those who call a press can be tested against it. Each kind runs out after its count. */
export class Misbehaviour {
  private readonly left = new Map<How, number>();
  private readonly stuck = new Set<string>();

  set(how: How, times: number): void {
    this.left.set(how, times);
  }

  private take(how: How): boolean {
    const n = this.left.get(how) ?? 0;
    if (n > 0) this.left.set(how, n - 1);
    return n > 0;
  }

  readonly onOrder = (_req: Request, res: Response, next: NextFunction): void => {
    if (this.take('error')) {
      const document = problem('broken', 'The press was told to fail.');
      res.status(500).type('application/problem+json').json(document);
    } else if (this.take('busy')) {
      const document = problem('tooMany', 'The press was told to have too much to do.');
      res.status(429).setHeader('Retry-After', '1').type('application/problem+json').json(document);
    } else if (this.take('slow')) setTimeout(next, 1500);
    else next();
  };

  readonly onImage = (req: Request, _res: Response, next: NextFunction): void => {
    if (this.take('cut')) req.socket.destroy();
    else next();
  };

  /** A render that was ordered may get stuck. */
  ordered({ id }: Render): void {
    if (this.take('stuck')) this.stuck.add(id);
  }

  /** What is said of a render: one that is stuck is for ever in painting, until it is cancelled. */
  tell(render: Render): Render {
    return this.stuck.has(render.id) ? { ...render, state: 'painting', progress: 50 } : render;
  }

  cancelled(id: string): void {
    this.stuck.delete(id);
  }

  async damage(png: Buffer): Promise<Buffer> {
    if (this.take('brokenPicture')) return png.subarray(0, Math.floor(png.length / 2));
    if (this.take('wrongSize')) return sharp(png).resize(300, 200, { fit: 'fill' }).png().toBuffer();
    if (this.take('otherPicture')) return sharp(png).negate({ alpha: false }).png().toBuffer();
    return png;
  }
}
