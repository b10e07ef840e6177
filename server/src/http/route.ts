import type { ErrorRequestHandler, Request, Response, Router } from 'express';
import { z } from 'zod';
import { firstFault, isInherited } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { DatabaseAway } from '../database/db.ts';
import { DISK_WORDS, diskFault } from '../diskFaults.ts';
import { EditConflict } from '../documents/documentStore.ts';

/** What the API says when something cannot be done. */
const Problem = z.object({ code: z.string(), message: z.string(), advice: z.string(), rows: z.array(z.unknown()).optional() });

export interface RouteSpec<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, R extends z.ZodType> {
  method: 'get' | 'post' | 'delete';
  path: string;
  says: string;
  params?: P;
  query?: Q;
  body?: B;
  /** The JSON the route answers with; absent where it sends bytes. */
  answer?: R;
}
type Input<P, Q, B> = { params: P; query: Q; body: B; req: Request; res: Response };

interface Described {
  spec: RouteSpec<z.ZodType, z.ZodType, z.ZodType, z.ZodType>;
}

/** Routes with their schemas: requests are checked by them, and the OpenAPI document is made from them. */
export class Api {
  readonly described: Described[] = [];
  constructor(private readonly router: Router) {}

  route<
    P extends z.ZodType = z.ZodType<unknown>,
    Q extends z.ZodType = z.ZodType<unknown>,
    B extends z.ZodType = z.ZodType<unknown>,
    R extends z.ZodType = z.ZodType<unknown>,
  >(
    spec: RouteSpec<P, Q, B, R>,
    handle: (input: Input<z.output<P>, z.output<Q>, z.output<B>>) => Promise<z.input<R> | void> | z.input<R> | void,
  ): void {
    this.described.push({ spec: spec as never });
    this.router[spec.method](spec.path, (req, res) => {
      void (async () => {
        try {
          if (Object.values(req.params).some(isNoName) || Object.values(req.query).some((q) => String(q).includes('\0')))
            throw nothingHere();
          const input = {
            params: parse(spec.params, req.params, 'address'),
            query: parse(spec.query, req.query, 'address'),
            body: parse(spec.body, req.body, 'request'),
            req,
            res,
          } as Input<z.output<P>, z.output<Q>, z.output<B>>;
          const answer = await handle(input);
          if (spec.answer && !res.headersSent) res.json(answer);
        } catch (error) {
          answerProblem(res, error);
        }
      })();
    });
  }

  /** OpenAPI 3.1 for all routes. */
  openApi(): Record<string, unknown> {
    const json = (schema: z.ZodType): unknown => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
    const paths: Record<string, Record<string, unknown>> = {};
    for (const { spec } of this.described) {
      const path = spec.path.replace(/[:*](\w+)/g, '{$1}');
      const parameters = [
        ...(['params', 'query'] as const).flatMap((where) => {
          const schema = spec[where] as z.ZodObject | undefined;
          return schema
            ? Object.entries(schema.shape).map(([name, s]) => ({
                name,
                in: where === 'params' ? 'path' : 'query',
                required: where === 'params',
                schema: json(s as z.ZodType),
              }))
            : [];
        }),
      ];
      (paths[`/api${path}`] ??= {})[spec.method] = {
        summary: spec.says,
        parameters,
        ...(spec.body && { requestBody: { content: { 'application/json': { schema: json(spec.body) } } } }),
        responses: {
          200: { description: 'Done', ...(spec.answer && { content: { 'application/json': { schema: json(spec.answer) } } }) },
          422: { description: 'It cannot be done; says why', content: { 'application/json': { schema: json(Problem) } } },
        },
      };
    }
    return { openapi: '3.1.0', info: { title: 'Elastic Folio', version: '1' }, paths };
  }
}

/** Whether a part of an address names nothing that there can be: what every object has, or letters that no text can hold. */
const isNoName = (part: unknown): boolean => typeof part === 'string' && (isInherited(part) || part.includes('\0'));

const nothingHere = (): FolioError => new FolioError('address.none', 'There is nothing at this address.', 'Go back to the shelf.');

function parse(schema: z.ZodType | undefined, value: unknown, what: string): unknown {
  if (!schema) return undefined;
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  throw new FolioError('request.form', `The ${what} is not right: ${firstFault(result.error)}.`, 'Reload the page and try again.');
}

/** What the body parser found wrong before a route was reached (types of Express's `body-parser`). */
const UNREADABLE: Record<string, string> = {
  'entity.parse.failed': 'What was sent is no JSON.',
  'entity.too.large': 'What was sent is too large.',
  'request.aborted': 'What was sent did not arrive whole.',
};

/** Answers with a problem in JSON, whatever was thrown; nothing of the program's inside is told. */
export function answerProblem(res: Response, error: unknown): void {
  if (res.headersSent) return void res.destroy();
  const { type, status } = error as { type?: string; status?: number };
  if (status !== undefined && status >= 400 && status < 500)
    return void res.status(status).json({
      code: 'request.form',
      message: (type !== undefined && UNREADABLE[type]) || 'What was asked for cannot be read.',
      advice: 'Reload the page and try again.',
    });
  if (error instanceof DatabaseAway)
    return void res.status(503).json({
      code: 'database.away',
      message: error.message,
      advice: 'It is tried again by itself; what you do here is kept until then.',
    });
  if (error instanceof EditConflict)
    return void res.status(409).json({
      code: 'edit.conflict',
      message: error.message,
      advice: 'What changed has been taken over; make your change again.',
      rows: error.rows,
    });
  if (error instanceof FolioError)
    return void res
      .status(error.code.endsWith('.none') ? 404 : 422)
      .json({ code: error.code, message: error.message, advice: error.advice });
  if (error instanceof z.ZodError || (error instanceof Error && error.constructor.name === 'TextEditError'))
    return void res.status(422).json({
      code: 'edit.refused',
      message: error instanceof z.ZodError ? `This cannot be done: ${firstFault(error)}.` : error.message,
      advice: 'Go on from what is there.',
    });
  const fault = diskFault(error);
  if (fault) return void res.status(507).json({ code: `disk.${fault}`, ...DISK_WORDS[fault] });
  console.error(error);
  res.status(500).json({
    code: 'server.failed',
    message: 'Something went wrong in the program.',
    advice: 'Try again. If it happens once more, start the program anew: nothing kept is lost.',
  });
}

/** The same for what goes wrong before a route is reached: an address or a body that cannot be read. */
export const answerProblems: ErrorRequestHandler = (error, _req, res, next) => (res.headersSent ? next(error) : answerProblem(res, error));
