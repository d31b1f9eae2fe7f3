import { z } from 'zod'

/** `GET /status`: how the record is kept; `backup` null while none was ever made. */
export const Status = z.object({
  backup: z.object({ at: z.iso.datetime(), file: z.string(), bytes: z.int() }).nullable(),
})
export type Status = z.infer<typeof Status>
