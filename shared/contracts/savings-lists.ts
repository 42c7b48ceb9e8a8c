import { z } from 'zod'
import { confidences, risks } from '../../core/opportunity/opportunity'
import { amountText, currencyAmount, day } from './common'
import { mailStates } from './statement-mails'

export const savingsAnswer = z.enum(['agreed', 'refused'])
export type SavingsAnswer = z.infer<typeof savingsAnswer>

/** An opportunity as it stood when a list was handed over. */
export const savingsListItem = z.object({
  id: z.string(),
  title: z.string(),
  resourceName: z.string(),
  service: z.string(),
  subAccountName: z.string(),
  region: z.string(),
  currency: z.string(),
  monthlySaving: amountText,
  oneOff: amountText.nullable(),
  minutesOfWork: z.number(),
  risk: z.enum(risks),
  confidence: z.enum(confidences),
  /** What proves it, in words. */
  said: z.array(z.string()),
  steps: z.array(z.string()),
  undo: z.string(),
})
export type SavingsListItem = z.infer<typeof savingsListItem>

const answered = z.object({ answer: savingsAnswer, reason: z.string().nullable(), at: z.string() })
/** The same with what its owner answered; null while they have not. */
const answeredItem = savingsListItem.extend({ answered: answered.nullable() })
export type AnsweredItem = z.infer<typeof answeredItem>

export const savingsList = z.object({
  id: z.string(),
  person: z.string(),
  mail: z.string().nullable(),
  message: z.string().nullable(),
  madeBy: z.string(),
  madeAt: z.string(),
  expiresOn: day,
  revokedAt: z.string().nullable(),
  items: z.array(answeredItem),
  /** What it saves a month, by currency. */
  saves: z.array(currencyAmount),
  mailState: z.enum(mailStates).nullable(),
  mailSaid: z.string().nullable(),
})
export type SavingsList = z.infer<typeof savingsList>
export const savingsLists = z.object({
  lists: z.array(savingsList),
  /** Whose owner nobody knows: they are in no list. */
  nobody: z.array(z.string()),
})
export type SavingsLists = z.infer<typeof savingsLists>

const ids = z.array(z.string().min(1).max(600)).min(1, 'name at least one opportunity').max(1000)
/** Opportunities to hand over: a list for each owner. */
export const listsToMake = z.strictObject({
  ids,
  message: z.string().trim().max(2000).optional(),
  /** Whether each list is mailed to whom it is for. */
  mail: z.boolean(),
})
export type ListsToMake = z.infer<typeof listsToMake>
/** The path that opens a list, told once. */
export const listLink = z.object({ path: z.string() })

/** A list as its owner opens it. */
export const sharedSavings = savingsList.pick({
  person: true,
  message: true,
  madeBy: true,
  madeAt: true,
  expiresOn: true,
  items: true,
  saves: true,
})
export type SharedSavings = z.infer<typeof sharedSavings>

export const answerToList = z
  .strictObject({ id: z.string().min(1).max(600), answer: savingsAnswer, reason: z.string().trim().max(2000).optional() })
  .superRefine(({ answer, reason }, context) => {
    if (answer === 'refused' && !reason)
      context.addIssue({ code: 'custom', path: ['reason'], message: 'say why, so that nobody asks again' })
  })
export type AnswerToList = z.infer<typeof answerToList>

/** A file of opportunities. */
export const savingsFileAsked = z.strictObject({ ids, format: z.enum(['csv', 'xlsx', 'json', 'pdf']) })
export type SavingsFileAsked = z.infer<typeof savingsFileAsked>
