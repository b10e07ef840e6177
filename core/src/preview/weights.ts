import { z } from 'zod';

const bytes = z.number().int().min(0);

/** Where the bytes of a web edition are. */
export const Weights = z.object({
  pages: z.array(
    z.object({
      page: z.string(),
      label: z.string(),
      now: z.object({ text: bytes, pictures: bytes, played: bytes, embeds: bytes, files: bytes }),
      /** The document's own files that the page shows, as large as they came. */
      was: bytes,
    }),
  ),
  /** What comes with whatever page is read first. */
  shared: z.object({ fonts: bytes, program: bytes, style: bytes, around: bytes }),
  /** What is there to be fetched in its stead, or later: smaller pictures, icons, files for search programs. */
  spare: bytes,
});
export type Weights = z.infer<typeof Weights>;
