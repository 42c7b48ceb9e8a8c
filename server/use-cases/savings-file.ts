import { amountHeads, opportunityHeads, opportunityRow } from '../../core/opportunity/list-file'
import { addTexts } from '../../core/money/amount-text'
import { tableFormats } from '../../shared/table-formats'
import { amountSaid } from '../../shared/words/amounts'
import { withinSaid } from '../../shared/words/within'
import type { OpportunityView } from '../../shared/contracts/savings'
import type { SavingsFileAsked } from '../../shared/contracts/savings-lists'
import type { OwnedSavings } from '../exports/savings/savings-document'
import { savingsState } from './savings'
import { unknownOpportunity, type SavingsWork } from './savings-found'
import type { Work } from './work'

/** A file of opportunities, as they were named; what it does not count twice or cannot convert it says. */
export async function savingsFile(
  work: SavingsWork & Pick<Work, 'exporter'>,
  { ids, format }: SavingsFileAsked,
): Promise<{ bytes: Uint8Array; mime: string; fileName: string }> {
  const state = await savingsState(work)
  const byId = new Map(state.opportunities.map(one => [one.id, one]))
  const kinds = new Map(state.finders.map(({ detector, label }) => [detector, label]))
  const chosen = [...new Set(ids)].map(id => {
    const one = byId.get(id)
    if (!one) throw unknownOpportunity(id)
    return one
  })
  const { currency, notCounted, unrated } = state.whole
  const asked = new Set(ids)
  const { result: facts } = await work.seen.ask('facts', undefined)
  const twice = notCounted.filter(({ id }) => asked.has(id))
  const notes = [
    ...twice.map(({ id, amount }) => ({
      name: 'Not counted twice',
      text: `${byId.get(id)!.title}: ${amountSaid({ amount, currency: currency! })}`,
    })),
    ...unrated.filter(id => asked.has(id)).map(id => ({ name: 'Without a rate', text: byId.get(id)!.title })),
  ]
  const fileName = `savings-${facts.lastDay ?? 'empty'}.${format}`
  if (format === 'pdf') {
    const bytes = await work.exporter.writeSavings({
      title: 'What can be saved',
      facts: [`charges to ${facts.lastDay ?? 'none'}`, ...(facts.within ? [`within ${withinSaid(facts.within)}`] : [])],
      owners: byOwner(chosen, currency),
      notes: notes.map(({ name, text }) => `${name}: ${text}`),
    })
    return { bytes, mime: 'application/pdf', fileName }
  }
  const bytes = await work.exporter.writeTable(format, {
    title: 'What can be saved',
    facts: [
      { name: 'Charges to', text: facts.lastDay ?? 'none' },
      { name: 'Counted in', text: currency ?? 'no currency' },
      ...(facts.within ? [{ name: 'Within', text: withinSaid(facts.within) }] : []),
      ...notes,
    ],
    heads: opportunityHeads.map(name => ({ name, kind: amountHeads.has(name) ? 'amount' : 'text' })),
    rows: chosen.map(one => opportunityRow({ ...one, kind: kinds.get(one.detector) ?? one.detector, due: one.decision?.due ?? null })),
    total: null,
  })
  return { bytes, mime: tableFormats[format].mime, fileName }
}

/** What each owner has of it, by name; what nobody owns comes last. */
function byOwner(chosen: readonly OpportunityView[], currency: string | null): OwnedSavings[] {
  const owners = [...new Set(chosen.map(({ owner }) => owner))].sort((a, b) => (a === null ? 1 : b === null ? -1 : a < b ? -1 : 1))
  return owners.map(owner => {
    const own = chosen.filter(one => one.owner === owner)
    const counted = own.flatMap(one => (one.counted === null ? [] : [one.counted]))
    return {
      owner,
      total: currency && counted.length ? { amount: addTexts(counted), currency } : null,
      items: own.map(one => ({
        ...{ title: one.title, amount: one.monthlySaving, currency: one.currency, said: one.evidence.series.map(({ said }) => said) },
        facts: [one.service, one.subAccountName, one.region, `${one.minutesOfWork} min of work`, `risk: ${one.risk}`, one.confidence],
        steps: one.byHand?.steps ?? ['approve it under Savings: what would be done is shown there first'],
        undo: one.byHand?.undo ?? null,
      })),
    }
  })
}
