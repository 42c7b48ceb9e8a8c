import { amountHeads, opportunityHeads, opportunityRow } from '../../core/opportunity/list-file'
import { tableFormats } from '../../shared/table-formats'
import { amountSaid } from '../../shared/words/amounts'
import { withinSaid } from '../../shared/words/within'
import type { SavingsFileAsked } from '../../shared/contracts/savings-lists'
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
  const rows = [...new Set(ids)].map(id => {
    const one = byId.get(id)
    if (!one) throw unknownOpportunity(id)
    return opportunityRow({ ...one, kind: kinds.get(one.detector) ?? one.detector, due: one.decision?.due ?? null })
  })
  const { currency, notCounted, unrated } = state.whole
  const asked = new Set(ids)
  const { result: facts } = await work.seen.ask('facts', undefined)
  const twice = notCounted.filter(({ id }) => asked.has(id))
  const bytes = await work.exporter.writeTable(format, {
    title: 'What can be saved',
    facts: [
      { name: 'Charges to', text: facts.lastDay ?? 'none' },
      { name: 'Counted in', text: currency ?? 'no currency' },
      ...(facts.within ? [{ name: 'Within', text: withinSaid(facts.within) }] : []),
      ...twice.map(({ id, amount }) => ({
        name: 'Not counted twice',
        text: `${byId.get(id)!.title}: ${amountSaid({ amount, currency: currency! })}`,
      })),
      ...unrated.filter(id => asked.has(id)).map(id => ({ name: 'Without a rate', text: byId.get(id)!.title })),
    ],
    heads: opportunityHeads.map(name => ({ name, kind: amountHeads.has(name) ? 'amount' : 'text' })),
    rows,
    total: null,
  })
  return { bytes, mime: tableFormats[format].mime, fileName: `savings-${facts.lastDay ?? 'empty'}.${format}` }
}
