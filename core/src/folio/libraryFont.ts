import { z } from 'zod';
import { Id } from './ids.ts';

/** A font that a user has added for all documents; its bytes are a blob, as TrueType or OpenType. */
export const LibraryFont = z.object({
  id: Id,
  family: z.string().min(1),
  weight: z.number().int().min(1).max(1000),
  style: z.enum(['normal', 'italic']),
  fullName: z.string(),
  /** The font's own say on whether documents may carry it (OpenType, OS/2 fsType). */
  mayEmbed: z.boolean(),
  sha256: z.string(),
  bytes: z.number().int().min(0),
});
export type LibraryFont = z.infer<typeof LibraryFont>;
