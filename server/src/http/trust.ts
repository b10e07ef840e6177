import type { NextFunction, Request, Response } from 'express';

/**
 * Answers only to this machine's own names for it, and takes changes only from its own pages: against
 * other sites that point a name at the loopback address, or post to it.
 */
export function trustOwnHosts(port: number): (req: Request, res: Response, next: NextFunction) => void {
  const hosts = new Set([`127.0.0.1:${port}`, `localhost:${port}`, `[::1]:${port}`]);
  return (req, res, next) => {
    const { host, origin } = req.headers;
    if (!host || !hosts.has(host))
      return void res
        .status(403)
        .json({ code: 'host.foreign', message: `This program answers at http://127.0.0.1:${port} only.`, advice: 'Open that address.' });
    if (req.method !== 'GET' && req.method !== 'HEAD' && (!origin || !hosts.has(origin.replace(/^https?:\/\//, ''))))
      return void res.status(403).json({
        code: 'origin.foreign',
        message: 'Changes are taken from this program’s own pages only.',
        advice: `Open http://127.0.0.1:${port}.`,
      });
    next();
  };
}
