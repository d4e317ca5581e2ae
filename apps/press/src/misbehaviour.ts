import { problem, type MISBEHAVIOURS } from '@zinc/contract';
import type { NextFunction, Request, Response } from 'express';

type How = (typeof MISBEHAVIOURS)[number];

/** Wrong behaviour on demand, so that those who call a press can be tested against it. Each kind runs out after its count. */
export class Misbehaviour {
  private readonly left = new Map<How, number>();

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
    } else if (this.take('slow')) setTimeout(next, 1500);
    else next();
  };

  readonly onImage = (req: Request, _res: Response, next: NextFunction): void => {
    if (this.take('cut')) req.socket.destroy();
    else next();
  };

  damage(png: Buffer): Buffer {
    return this.take('brokenPicture') ? png.subarray(0, Math.floor(png.length / 2)) : png;
  }
}
