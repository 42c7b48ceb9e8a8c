import { z } from 'zod'
import { namedRecord } from '../../core/text/named-record'
import { amountText, currencyAmount, day } from './common'

const related = z.object({ id: z.string(), name: z.string().nullable(), type: z.string().nullable(), amounts: z.array(currencyAmount) })

/** Everything the charges and the product know about one resource. */
export const resourceView = z.object({
  id: z.string(),
  names: z.array(z.string()),
  type: z.string().nullable(),
  regionName: z.string().nullable(),
  regionId: z.string().nullable(),
  provider: z.string().nullable(),
  subAccount: z.string().nullable(),
  service: z.string().nullable(),
  container: z.string().nullable(),
  firstDay: day,
  lastDay: day,
  /** Whether it is still charged on the last day that its provider's data reaches. */
  stillThere: z.boolean(),
  /** Billed and effective cost by month. */
  months: z.array(z.object({ start: z.string(), currency: z.string(), billed: amountText, effective: amountText })),
  meters: z.array(
    z.object({
      skuId: z.string().nullable(),
      meter: z.string().nullable(),
      words: z.string().nullable(),
      charged: z.enum(['existing', 'use']).nullable(),
      unit: z.string().nullable(),
      days: z.array(z.object({ start: z.string(), quantity: amountText, amount: amountText })),
    }),
  ),
  tags: z.array(
    z.object({ key: z.string(), value: z.string(), from: z.enum(['own', 'container', 'account']), firstDay: day, lastDay: day }),
  ),
  /** Changes seen on the bill: first and last charged, another size, tags that came or changed. */
  events: z.array(z.object({ day: day, what: z.string() })),
  details: namedRecord(z.string()),
  createdBy: related.nullable(),
  created: z.array(related),
  protects: related.nullable(),
  /** What keeps copies of it: backups, snapshots. */
  protectedBy: z.array(related),
  /** What its charged hours say about starting and stopping; null where it is not charged by the hour. */
  runs: z.object({ still: z.array(z.object({ from: day, to: day })), hoursADay: z.number(), days: z.number() }).nullable(),
  /** What was done to it through Rain Barrel, step by step. */
  actions: z.array(z.object({ at: z.string(), who: z.string(), what: z.string(), outcome: z.string() })),
  commitments: z.array(z.string()),
  /** The cost centre its newest charges land on, by which rule, and who owns it. */
  centre: z.object({ name: z.string(), rule: z.string(), owner: z.string().nullable() }).nullable(),
  note: z.object({ body: z.string(), who: z.string(), savedAt: z.string() }).nullable(),
  revision: z.number(),
})
export type ResourceView = z.infer<typeof resourceView>
/** What the resource's cloud says of it now (null where no connection knows it), and what was measured of it. */
export const resourceReport = z.object({
  report: z
    .object({
      /** The cloud. */
      by: z.string(),
      status: z.string(),
      locks: z.array(z.object({ against: z.enum(['changes', 'deletion']), why: z.string(), by: z.string(), since: day })),
      /** Planned starts and stops, with how it went the last time. */
      plan: z.array(
        z.object({
          does: z.enum(['stop', 'start']),
          when: z.string(),
          last: z.object({ at: z.string(), outcome: z.enum(['done', 'refused', 'nothing to do']), why: z.string().nullable() }).nullable(),
        }),
      ),
    })
    .nullable(),
  /** What was measured, by connections or files: the highest hour of each day and its mean, or all that passed on it. */
  measured: z.array(
    z.object({
      what: z.string(),
      unit: z.string(),
      ofHour: z.enum(['highest', 'sum']),
      days: z.array(z.object({ day: day, amount: z.number(), mean: z.number() })),
    }),
  ),
})
export type ResourceReport = z.infer<typeof resourceReport>

export const resourceQuery = z.object({ id: z.string().min(1) })
export const resourceNote = z.object({ id: z.string().min(1), body: z.string().max(20_000) })

/** Resources of which is asked who made them. */
export const makersAsked = z.object({ ids: z.array(z.string().min(1)).min(1).max(5000) })
/** Who made which of them, and what else they made. */
export const makers = z.object({ makers: z.array(z.object({ by: z.string(), ids: z.array(z.string()), others: z.array(z.string()) })) })
export type Makers = z.infer<typeof makers>
