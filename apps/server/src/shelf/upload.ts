import multer, { MulterError } from 'multer';
import type { Request, Response } from 'express';
import { ProblemError } from '../http/problemError.ts';

export const MOST_BYTES = 50 * 1024 * 1024;
const single = multer({ storage: multer.memoryStorage(), limits: { fileSize: MOST_BYTES, files: 1, fields: 10 } }).single('file');

/** Reads the one file of a multipart request, and the text fields sent before it. The name is for messages only; nothing is ever stored under it. */
export function readUpload(
  req: Request<Record<string, string>>,
  res: Response,
): Promise<{ name: string; bytes: Buffer; fields: Record<string, string> }> {
  return new Promise((resolve, reject) => {
    single(req as unknown as Request, res, (error: unknown) => {
      if (error instanceof MulterError && error.code === 'LIMIT_FILE_SIZE')
        reject(new ProblemError('tooLarge', 'The file is larger than 50 MB. Save a smaller copy.', { field: 'file' }));
      else if (error)
        reject(new ProblemError('badInput', `The file did not arrive whole: ${(error as Error).message}`, { field: 'file' }));
      else if (!req.file) reject(new ProblemError('badInput', 'The request holds no file.', { field: 'file' }));
      // Browsers send the name as UTF-8 bytes; the parser reads them as Latin-1.
      else
        resolve({
          name: Buffer.from(req.file.originalname, 'latin1').toString('utf8').slice(0, 200),
          bytes: req.file.buffer,
          fields: { ...(req.body as Record<string, string>) },
        });
    });
  });
}
