import { z } from 'zod';

/** A result on the simulated web host. */
export const PublishedSite = z.object({
  id: z.string(),
  folio: z.string(),
  recipe: z.string(),
  /** The first part of its address. */
  name: z.string(),
  /** The version that is shown; null: it was taken down. */
  shown: z.number().int().nullable(),
  /** The newest first. */
  versions: z.array(
    z.object({
      number: z.number().int(),
      run: z.string(),
      bytes: z.number(),
      files: z.number(),
      /** What of it needs a secure connection. */
      secure: z.array(z.string()),
      at: z.string(),
    }),
  ),
});
export type PublishedSite = z.infer<typeof PublishedSite>;

/** Where phones in the same network find a site for a while. */
export const PhoneAddress = z.object({ code: z.string(), until: z.string(), port: z.number(), addresses: z.array(z.string()) });
export type PhoneAddress = z.infer<typeof PhoneAddress>;

/** Where phones find a site now, and whether that was closed because too many wrong codes came. */
export const OnPhones = z.object({ phone: PhoneAddress.nullable(), closedForWrongCodes: z.boolean() });
export type OnPhones = z.infer<typeof OnPhones>;
