import { describe, expect, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FileDerived } from '@elastic-folio/core/node';
import type { ServerEvent } from '@elastic-folio/core/api';
import type { ConversionPool } from '../src/conversion/pool.ts';
import type { Survey } from '../src/conversion/tasks.ts';
import { Surveys } from '../src/documents/survey.ts';
import { EventHub } from '../src/events.ts';

/** Surveys over a pool that answers when it is told to; what was asked of it, and what the shelf was told. */
async function withSurveys(
  answer: () => Promise<unknown>,
  work: (s: { surveys: Surveys; again: () => Surveys; asked: () => number; told: ServerEvent[] }) => Promise<void>,
): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'surveys-'));
  let asked = 0;
  const pool = { survey: () => (asked++, answer()) } as unknown as ConversionPool;
  const events = new EventHub();
  const told: ServerEvent[] = [];
  events.on('event', (e) => told.push(e));
  const loaded = () => Promise.resolve({ folio: {}, files: new Map() } as never);
  const make = (): Surveys => new Surveys(loaded, new FileDerived(folder), pool, folder, events);
  try {
    await work({ surveys: make(), again: make, asked: () => asked, told });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
const FOUND: Survey = { openPoints: ['Page 1: something'], cover: '<svg/>' };

describe('surveys of documents for the shelf', () => {
  test('the shelf does not wait: it is told when a survey is there, and asked once for all who want it', async () => {
    let answer: (v: unknown) => void = () => undefined;
    const pending = new Promise((resolve) => (answer = resolve));
    await withSurveys(
      () => pending,
      async ({ surveys, asked, told }) => {
        expect(await surveys.peek('d', 'h')).toBeNull();
        expect(await surveys.peek('d', 'h')).toBeNull();
        const cover = surveys.of('d', 'h');
        answer({ ok: FOUND });
        expect(await cover).toEqual(FOUND);
        expect(asked()).toBe(1);
        expect(await surveys.peek('d', 'h')).toEqual(FOUND);
        // Once: whoever hears of it asks for the whole shelf.
        expect(told.length).toBe(1);
        expect(told.every((e) => e.type === 'shelf')).toBe(true);
      },
    );
  });

  test('what was found is kept for the next start; another content is looked through anew', async () => {
    await withSurveys(
      () => Promise.resolve({ ok: FOUND }),
      async ({ surveys, again, asked }) => {
        await surveys.of('d', 'h');
        const later = again();
        expect(await later.peek('d', 'h')).toEqual(FOUND);
        expect(asked()).toBe(1);
        await later.of('d', 'other');
        expect(asked()).toBe(2);
      },
    );
  });

  test('a document that cannot be looked through says so on the shelf, and is tried again after the next start', async () => {
    await withSurveys(
      () => Promise.resolve({ failure: { code: 'x', message: 'it needed too much memory.', advice: '' } }),
      async ({ surveys, again, asked }) => {
        const failed = { openPoints: ['The document could not be looked through: it needed too much memory.'], cover: null };
        expect(await surveys.of('d', 'h')).toEqual(failed);
        expect(await surveys.peek('d', 'h')).toEqual(failed);
        expect(asked()).toBe(1);
        await again().of('d', 'h');
        expect(asked()).toBe(2);
      },
    );
  });
});
