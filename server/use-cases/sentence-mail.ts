import { mainTotal } from '../../core/money/main-total'
import { dataDaysOf, laggards, reachingCompared, resolvePeriod, scopeOf } from '../../core/spend/sentence-period'
import { readSentence, type WrittenQuery } from '../../core/spend/sentence-address'
import { addDays } from '../../core/time/day'
import { amountSaid } from '../../shared/words/amounts'
import { capitalised } from '../../shared/words/capitalised'
import { sentenceTitle } from '../../shared/words/sentence-text'
import { withinSaid } from '../../shared/words/within'
import type { Mail } from '../connectors/mail'
import type { Work } from './work'
import type { StoredSentence } from '../stores/sentences'
import { tableFile } from './table-file'

/** The mail of a saved sentence as it is now, with its file; in words why there is none. */
export async function sentenceMail(
  { seen, exporter, asker }: Pick<Work, 'seen' | 'exporter' | 'asker'>,
  saved: StoredSentence,
): Promise<Omit<Mail, 'key'> | string> {
  const { schedule, name, body, description } = saved
  if (!schedule) return 'The sentence is sent to nobody: name someone under its schedule.'
  const { result: facts } = await seen.ask('facts', undefined)
  const days = dataDaysOf(facts)
  if (!days) return facts.within ? `${asker.name} sees no charges: nothing was sent.` : 'Nothing is loaded yet: nothing was sent.'
  const sentence = readSentence(body.query)
  const period = resolvePeriod(sentence.period, days)
  const asked = {
    ...scopeOf(sentence, days),
    measure: sentence.measure,
    ...(sentence.reportCurrency && { reportCurrency: sentence.reportCurrency }),
  }
  const { result } = await seen.ask('answer', { ...asked, splitBy: [], grain: null })
  const link = linkBack(body.query)
  const currency = sentence.currency ?? mainTotal(result.totals, facts.reportCurrency)?.currency ?? 'EUR'
  const table = {
    question: { ...asked, splitBy: sentence.splitBy, grain: sentence.grain },
    format: schedule.format,
    currency,
    across: sentence.across,
    columns: sentence.columns,
    before: reachingCompared(sentence, days),
    title: name,
  }
  // CSV holds nothing but its rows: what there is to know beside them is a file of its own
  const parts = schedule.format === 'csv' ? (['table', 'notes'] as const) : (['table'] as const)
  const made = await Promise.all(parts.map(part => tableFile({ seen, exporter }, { ...table, part })))
  const fileName = name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '')
  const total = result.totals.length ? result.totals.map(amountSaid).join(', ') : 'no charges'
  const late = laggards(period, days)
  const lines = [
    ...(description ? [description, ''] : []),
    `${capitalised(sentenceTitle(sentence, period))}: ${period.start} to ${addDays(period.end, -1)}.`,
    `Total: ${total}.`,
    ...(facts.within ? [`It is of ${withinSaid(facts.within)}.`] : []),
    ...(late.length ? [`It lacks days of ${late.map(({ source, lastDay }) => `${source} (delivered to ${lastDay})`).join(', ')}.`] : []),
    `Charges reach to ${days.lastDay}. Kept by ${asker.name} in Rain Barrel.`,
    ...(link ? ['', link] : []),
  ]
  return {
    to: schedule.to,
    subject: `${name}, ${period.start} to ${addDays(period.end, -1)}`,
    text: `${lines.join('\n')}\n`,
    files: made.map(({ bytes, mime }, i) => ({
      name: parts[i] === 'table' ? `${fileName}.${schedule.format}` : `${fileName} notes.txt`,
      bytes,
      mime,
    })),
  }
}

/** Where the sentence is looked at, by the address that `RAIN_BARREL_URL` says this server has; null where it says none. */
function linkBack(query: WrittenQuery): string | null {
  const base = process.env.RAIN_BARREL_URL
  if (!base) return null
  const url = new URL('/spend', base)
  for (const [name, value] of Object.entries(query)) for (const one of [value].flat()) url.searchParams.append(name, one)
  return url.href
}
