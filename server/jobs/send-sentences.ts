import { measures } from '../../core/spend/question'
import { comparedPeriod, readView, resolvePeriod, scopeOf } from '../../core/spend/view'
import { addDays } from '../../core/time/day'
import type { DeliverySchedule } from '../../shared/contracts/spend-settings'
import { sendMail } from '../connectors/mail'
import { tableFile } from '../engine/table-file'
import type { Services } from '../services'
import type { findSentence} from '../stores/sentences';
import { noteSent, scheduledSentences } from '../stores/sentences'

const LOOK_EVERY_MS = 60_000
const DAY_MS = 86_400_000
const everyMs: Record<DeliverySchedule['every'], number> = { day: DAY_MS, week: 7 * DAY_MS, month: 28 * DAY_MS }
type Engine = Pick<Services, 'database' | 'cube' | 'exporter'>
type Stored = NonNullable<Awaited<ReturnType<typeof findSentence>>>

/** Makes the file of a saved sentence as it is now and sends it to those who get it. @returns what came of it, in words. @throws ConnectorFailed when the mail is not taken. */
export async function sendSentence({ cube, exporter }: Engine, sentence: Stored): Promise<string> {
  const { schedule, name, body, description, owner } = sentence
  if (!schedule) return 'The sentence is sent to nobody: name someone under its schedule.'
  const { result: facts } = await cube.ask('facts', undefined)
  if (!facts.firstDay || !facts.lastDay) return 'Nothing is loaded yet: nothing was sent.'
  const days = { firstDay: facts.firstDay, lastDay: facts.lastDay }
  const view = readView(body.query)
  const period = resolvePeriod(view.period, days)
  const { result } = await cube.ask('answer', { ...scopeOf(view, days), measure: view.measure, splitBy: [], grain: null, ...(view.reportCurrency && { reportCurrency: view.reportCurrency }) })
  const largest = result.totals.reduce<{ currency: string, amount: string } | null>((a, b) => a && Math.abs(Number(a.amount)) >= Math.abs(Number(b.amount)) ? a : b, null)
  const currency = view.currency ?? largest?.currency ?? 'EUR'
  const file = await tableFile({ cube, exporter }, {
    question: { ...scopeOf(view, days), conditions: view.conditions, measure: view.measure, splitBy: view.splitBy, grain: view.grain, ...(view.reportCurrency && { reportCurrency: view.reportCurrency }) },
    format: schedule.format, currency, across: view.across, columns: view.columns, before: comparedPeriod(view, days), companions: view.splitBy.includes('ResourceId') ? { ResourceId: 'ResourceName' } : {},
    title: name, labels: Object.fromEntries(measures.map(measure => [measure, measure])),
  })
  const total = largest ? `${result.totals.map(t => `${t.amount} ${t.currency}`).join(', ')}` : 'no charges'
  await sendMail({
    to: schedule.to, subject: `${name}, ${period.start} to ${addDays(period.end, -1)}`,
    text: `${description ? `${description}\n\n` : ''}Total: ${total}.\nCharges reach to ${days.lastDay}. Kept by ${owner} in Rain Barrel.\n`,
    file: { name: `${name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '')}.${schedule.format}`, bytes: file.bytes, mime: file.mime },
  })
  return `sent to ${schedule.to.join(', ')}`
}

/** Sends what is due, looking every minute; a failure is noted beside the sentence and tried again. @returns how to stop it. */
export function sendSentences(engine: Engine): () => void {
  let sending = false
  async function look() {
    if (sending) return
    sending = true
    try {
      for (const sentence of await scheduledSentences(engine.database.db)) {
        const due = !sentence.lastSentAt || Date.now() - new Date(sentence.lastSentAt).getTime() >= everyMs[sentence.schedule!.every]
        if (due) await deliver(engine, sentence).catch(() => {}) // what failed stands beside the sentence
      }
    }
    finally {
      sending = false
    }
  }
  const timer = setInterval(() => void look().catch((error: Error) => console.error(error)), LOOK_EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}

/** Sends and notes what came of it. @throws what went wrong. */
export async function deliver(engine: Engine, sentence: Stored): Promise<string> {
  try {
    const said = await sendSentence(engine, sentence)
    await noteSent(engine.database.db, sentence.id, said, new Date().toISOString())
    return said
  }
  catch (error) {
    await noteSent(engine.database.db, sentence.id, (error as Error).message, null)
    throw error
  }
}
