import { reachingCompared, readView, resolvePeriod, scopeOf } from '../../core/spend/view'
import { addDays } from '../../core/time/day'
import type { Mail } from '../connectors/mail'
import type { Services } from '../services'
import type { StoredSentence } from '../stores/sentences'
import { dataDaysOf } from './delivered-days'
import { tableFile } from './table-file'

/** The mail of a saved sentence as it is now, with its file; in words why there is none. */
export async function sentenceMail(
  { cube, exporter }: Pick<Services, 'cube' | 'exporter'>,
  sentence: StoredSentence,
): Promise<Omit<Mail, 'key'> | string> {
  const { schedule, name, body, description, owner } = sentence
  if (!schedule) return 'The sentence is sent to nobody: name someone under its schedule.'
  const { result: facts } = await cube.ask('facts', undefined)
  const days = dataDaysOf(facts)
  if (!days) return 'Nothing is loaded yet: nothing was sent.'
  const view = readView(body.query)
  const period = resolvePeriod(view.period, days)
  const asked = { ...scopeOf(view, days), measure: view.measure, ...(view.reportCurrency && { reportCurrency: view.reportCurrency }) }
  const { result } = await cube.ask('answer', { ...asked, splitBy: [], grain: null })
  const largest = result.totals.reduce<{ currency: string; amount: string } | null>(
    (a, b) => (a && Math.abs(Number(a.amount)) >= Math.abs(Number(b.amount)) ? a : b),
    null,
  )
  const currency = view.currency ?? largest?.currency ?? 'EUR'
  const file = await tableFile(
    { cube, exporter },
    {
      question: { ...asked, splitBy: view.splitBy, grain: view.grain },
      format: schedule.format,
      currency,
      across: view.across,
      columns: view.columns,
      before: reachingCompared(view, days),
      title: name,
    },
  )
  const total = largest ? `${result.totals.map(t => `${t.amount} ${t.currency}`).join(', ')}` : 'no charges'
  return {
    to: schedule.to,
    subject: `${name}, ${period.start} to ${addDays(period.end, -1)}`,
    text: `${description ? `${description}\n\n` : ''}Total: ${total}.\nCharges reach to ${days.lastDay}. Kept by ${owner} in Rain Barrel.\n`,
    file: { name: `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '')}.${schedule.format}`, bytes: file.bytes, mime: file.mime },
  }
}
