import type { Estimate } from '../../core/estimate/estimate'
import { againstBill, estimateFromUse } from '../../core/estimate/from-use'
import { roundText, sizeText } from '../../core/money/amount-text'
import type { RateCard } from '../../core/ratecard/rate-card'
import type { Narrowing } from '../../core/spend/question'
import { monthEnd } from '../../core/time/day'
import { usedLines } from '../../shared/contracts/estimates'
import type { RateCardEntry } from '../../shared/contracts/reference-data'
import { monthText } from '../../shared/words/days'
import { findCard } from './cards'
import { client, refusal } from './client'
import { newId } from './estimate-rows'
import { money } from '../../shared/words/amounts'

/** What ran: a month, what it is narrowed to, and how that is called. */
export type Used = { month: string; keep: Narrowing; leaveOut: Narrowing; called: string }

/**
 * An estimate of what ran in a month, on the cards that held at its end. Its note says what it lacks and how it differs from the bill.
 * @throws RequestFailed when nothing ran, or nothing of it can be priced.
 */
export async function estimateOfUse({ month, keep, leaveOut, called }: Used, known: readonly RateCardEntry[]): Promise<Estimate> {
  const used = await client.send('POST', 'spend/used', { month, keep, leaveOut }, usedLines)
  if (!used.lines.length) throw refusal('Nothing ran', `No usage is charged in ${monthText(month)}${called ? ` for ${called}` : ''}.`)
  const cards = new Map<string, RateCard>()
  for (const provider of new Set(used.lines.map(line => line.provider))) {
    const held = await findCard(provider, monthEnd(month))
    if (held) cards.set(provider, held)
  }
  const revisionOf = (provider: string, { validFrom }: RateCard) =>
    Math.max(1, ...known.filter(card => card.provider === provider && card.validFrom === validFrom).map(card => card.revision))
  const revisions = new Map([...cards].map(([provider, card]) => [provider, revisionOf(provider, card)]))
  const name = `${called || 'Everything'}, ${monthText(month)}`.slice(0, 120)
  const { estimate, unknown } = estimateFromUse(name, month, used.lines, cards, newId, revisions)
  if (!estimate.components.length) {
    const providers = [...new Set(unknown.map(line => line.provider))].join(', ')
    throw refusal('Nothing of it can be priced', `No rate card is loaded that has the SKUs of ${providers}.`)
  }
  const listed = used.listCost.map(cost => `${money(cost.amount, cost.currency)} ${cost.currency}`).join(', ')
  const notes = [
    `What ran in ${monthText(month)}${called ? `, ${called}` : ''}; at list price the bill says ${listed}.`,
    ...apartFromBill(estimate, againstBill(estimate, cards, used.lines, used.listCost)),
    ...leftOut(unknown.length, 'line of use has no price on a rate card and is', 'lines of use have no price on a rate card and are'),
    ...leftOut(
      used.notUsage,
      'charge that is no use (purchase, credit, correction) is',
      'charges that are no use (purchases, credits, corrections) are',
    ),
  ]
  return { ...estimate, note: notes.join(' ') }
}

const leftOut = (number: number, one: string, many: string) => (number ? [`${number} ${number === 1 ? one : many} left out.`] : [])

/** How an estimate differs from the bill that it was made of; nothing below half a cent. */
function apartFromBill({ currency }: Estimate, bill: ReturnType<typeof againstBill>): string[] {
  if (!bill || Math.abs(Number(bill.difference)) < 0.005) return []
  const size = `${money(sizeText(roundText(bill.difference)), currency!)} ${currency}`
  const way = bill.difference.startsWith('-') ? 'less' : 'more'
  return [
    `Priced for itself it is ${size} ${way}: the bill counts the tiers of ${bill.tiered.join(' and ')} over everything in the account.`,
  ]
}
