import express from 'express';
import type { RequestHandler } from 'express';
import { cleaned, mayBeUnclean } from '@elastic-folio/core';

const UNCLEAN = Symbol('unclean');

/** Reads bodies of JSON up to a size, without characters that no document can hold. */
export function jsonBodies(limit: string): RequestHandler[] {
  return [
    express.json({
      limit,
      verify: (req, _res, body) => {
        if (mayBeUnclean(body.toString('latin1'))) Object.assign(req, { [UNCLEAN]: true });
      },
    }),
    (req, _res, next) => {
      if (UNCLEAN in req) req.body = cleaned(req.body);
      next();
    },
  ];
}
