import { comparedPeriod, readView, resolvePeriod, scopeOf } from '../../core/spend/view'
import { addDays } from '../../core/time/day'
import { isDue } from '../../core/time/rhythm'
import { sendMail } from '../connectors/mail'
import { tableFile } from '../engine/table-file'
import type { Services } from '../services'
import { noteSent, scheduledSentences, type StoredSentence } from '../stores/sentences'
import { repeatedly } from './repeatedly'

const LOOK_EVERY_MS = 60_000
type Engine = Pick<Services, 'database' | 'cube' | 'exporter'>

/**
 * Makes the file of a saved sentence as it is now and sends it to those who get it. @returns what came of it, in words. @throws
 * ConnectorFailed when the mail is not taken.
 */
async function send({ cube, exporter }: Engine, sentence: StoredSentence): Promise<string> {
  const { schedule, name, body, description, owner } = sentence
  if (!schedule) return 'The sentence is sent to nobody: name someone under its schedule.'
  const { result: facts } = await cube.ask('facts', undefined)
  if (!facts.firstDay || !facts.lastDay) return 'Nothing is loaded yet: nothing was sent.'
  const days = { firstDay: facts.firstDay, lastDay: facts.lastDay }
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
      before: comparedPeriod(view, days),
      title: name,
    },
  )
  const total = largest ? `${result.totals.map(t => `${t.amount} ${t.currency}`).join(', ')}` : 'no charges'
  await sendMail({
    to: schedule.to,
    subject: `${name}, ${period.start} to ${addDays(period.end, -1)}`,
    text: `${description ? `${description}\n\n` : ''}Total: ${total}.\nCharges reach to ${days.lastDay}. Kept by ${owner} in Rain Barrel.\n`,
    file: { name: `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '')}.${schedule.format}`, bytes: file.bytes, mime: file.mime },
  })
  return `sent to ${schedule.to.join(', ')}`
}

/**
 * Sends what is due, looking every minute; a failure is noted beside the sentence and tried again an hour later. @returns how to stop it.
 */
export function sendSentences(engine: Engine): () => void {
  return repeatedly(LOOK_EVERY_MS, async () => {
    for (const sentence of await scheduledSentences(engine.database.db)) {
      if (isDue(sentence.schedule!.every, sentence.lastSentAt, sentence.lastTriedAt, new Date().toISOString()))
        await deliver(engine, sentence).catch(() => {}) // what failed stands beside the sentence
    }
  })
}

/** Sends and notes what came of it. @throws what went wrong. */
export async function deliver(engine: Engine, sentence: StoredSentence): Promise<string> {
  try {
    const said = await send(engine, sentence)
    await noteSent(engine.database.db, sentence.id, said, true)
    return said
  } catch (error) {
    await noteSent(engine.database.db, sentence.id, (error as Error).message, false)
    throw error
  }
}
