import type { NextFunction, Request, Response } from 'express';

/**
 * What is said where no page answers with words of its own: what was asked for cannot be read, or something failed. Of the program's
 * inside nothing is told, whatever it runs as.
 */
export function lastAnswer(error: unknown, _req: Request, res: Response, next: NextFunction): void {
  if (res.headersSent) return next(error);
  const status = Number((error as { status?: number } | null)?.status ?? 500);
  const asked = status >= 400 && status < 500;
  if (!asked) console.error(error);
  res
    .status(asked ? status : 500)
    .type('text')
    .send(asked ? 'This cannot be answered as it was asked.' : 'Something went wrong in the program.');
}
