import { z } from 'zod'
import { condition, type Condition } from '../allocation/condition'
import { parseScaled } from '../money/scaled'

const wholeNumber = (least: number, most: number) => {
  const help = `write a whole number from ${least} to ${most}`
  return z.int(help).min(least, help).max(most, help)
}
const days = (least: number) => wholeNumber(least, 3650)
const words = (most: number) => z.string().trim().min(1, 'write something').max(most, `at most ${most} letters`)
const positive = z.string().refine(text => {
  const read = parseScaled(text)
  return read !== null && !read.rounded && read.value >= 0n
}, 'write an amount such as 250 or 12.50')

/** When what is looked for was made: in a month of the calendar, since the beginning of one, or so many days ago at most or at least. */
export const madeWhen = z.discriminatedUnion('when', [
  z.object({ when: z.literal('last month') }),
  z.object({ when: z.literal('since last month') }),
  z.object({ when: z.literal('within'), days: days(1) }),
  z.object({ when: z.literal('before'), days: days(1) }),
])
export type MadeWhen = z.infer<typeof madeWhen>

const conditions = z.array(condition).max(20, 'at most 20 conditions')

/** What an order looks for. */
export const finds = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('resources'),
    /** By the same matcher as rules of allocation: aliases, inherited tags, lookups. */
    conditions,
    made: madeWhen.nullable(),
    /** What each costs a month at least, in the currency it is charged in; null where that does not matter. */
    costAtLeast: positive.nullable(),
  }),
  z.object({
    what: z.literal('savings'),
    /** By which detectors they are found. */
    detectors: z.array(words(60)).min(1, 'name at least one kind of saving'),
    /** Of their resources. */
    conditions,
  }),
])
export type Finds = z.infer<typeof finds>

/** How a person is written where a tag names them. */
export const personForms = ['mail', 'name', 'id'] as const
export type PersonForm = (typeof personForms)[number]

/** How an order writes to people. */
export const noticeWays = ['mail', 'chat'] as const
export type NoticeWay = (typeof noticeWays)[number]

/** What an order does to what it finds. */
export const does = z.discriminatedUnion('deed', [
  z.object({ deed: z.literal('tag'), key: words(128), value: z.object({ from: z.literal('text'), text: words(256) }) }),
  z.object({ deed: z.literal('tag owner'), key: words(128), form: z.enum(personForms) }),
  /** Writes to whoever owns it, by the rules of allocation; to a person, where nobody does. */
  z.object({
    deed: z.literal('notify'),
    by: z.enum(noticeWays).default('mail'),
    otherwise: words(80).nullable(),
    message: words(2000).nullable(),
  }),
  /** Acts on a saving as it can be acted on from Savings; what cannot be undone waits for a person. */
  z.object({ deed: z.literal('act') }),
])
export type Does = z.infer<typeof does>

/** What starts an order beside a person. */
export const starts = z.discriminatedUnion('by', [
  z.object({ by: z.literal('person') }),
  z.object({ by: z.literal('schedule'), every: z.object({ count: wholeNumber(1, 366), unit: z.enum(['hour', 'day', 'week', 'month']) }) }),
  /** Something is made: as soon as connections that are asked every minute tell of it. */
  z.object({ by: z.literal('event') }),
])
export type Starts = z.infer<typeof starts>

/** Above this a run does nothing, and waits for a person. */
export const brake = z.object({
  resources: wholeNumber(1, 100_000),
  /** What all that would be touched costs a month, in any one currency; null for any. */
  monthlyCost: positive.nullable(),
})
export type Brake = z.infer<typeof brake>

/** What a standing order is: what it finds, how long it waits, what it does, what starts it, and what stops it. */
export const orderDefinition = z
  .object({
    name: words(80),
    finds,
    /** So many days it must have been found before anything is done. */
    waitDays: wholeNumber(0, 365),
    does,
    starts,
    brake,
  })
  .superRefine(({ finds, does, starts }, context) => {
    const refuse = (path: string[], message: string) => context.addIssue({ code: 'custom', path, message })
    if (does.deed === 'act' && finds.what !== 'savings')
      refuse(['does', 'deed'], 'only a saving can be acted on: look for savings, or choose what is done to resources')
    if (starts.by === 'event' && finds.what !== 'resources')
      refuse(['starts', 'by'], 'an event tells of a resource that is made: look for resources, or start by a schedule')
    const isTag = does.deed === 'tag' || does.deed === 'tag owner'
    if (finds.what === 'resources' && !isTag && !finds.conditions.length && !finds.made && !finds.costAtLeast)
      refuse(['finds', 'conditions'], 'this finds every resource there is: name at least one condition')
  })
export type OrderDefinition = z.infer<typeof orderDefinition>

/** What resources an order finds have to meet: what sets a tag looks only at those without it. */
export const conditionsOf = ({ finds, does }: Pick<OrderDefinition, 'finds' | 'does'>): Condition[] =>
  does.deed === 'tag' || does.deed === 'tag owner'
    ? [...finds.conditions, { dimension: `Tags/${does.key}`, values: [null] }]
    : finds.conditions
