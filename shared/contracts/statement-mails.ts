import { z } from 'zod'

/** What became of a mail: it is sent; it was not taken; nobody knows; it is under way. */
export const mailStates = ['sending', 'sent', 'failed', 'not known'] as const
export type MailState = (typeof mailStates)[number]

/** Whoever answers for cost centres of a closed month, and what became of their mail; null where none was asked for. */
export const statementMails = z.object({
  owners: z.array(
    z.object({
      person: z.string(),
      name: z.string(),
      /** Where it goes; null where nobody has said. */
      mail: z.string().nullable(),
      /** The uppermost cost centres that are theirs, by name. */
      centres: z.array(z.string()),
      state: z.enum(mailStates).nullable(),
      said: z.string().nullable(),
    }),
  ),
})
export type StatementMails = z.infer<typeof statementMails>
/** Everyone who has an address and got none yet; of whom nobody knows whether they did, only those who are named. */
export const statementMailsAsked = z.object({ again: z.array(z.string()).max(1000).default([]) })
