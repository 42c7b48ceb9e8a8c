import type { Db } from '../db/client'
import { connectors } from '../connectors'
import type { CloudConnector } from '../connectors/cloud-connector'
import { compareCards } from '../../core/ratecard/compare-cards'
import { listRateCards, findRateCard, listSchedules, noteAsked, saveRateCard } from '../stores/rate-cards'

const LOOK_EVERY_MS = 60_000
const HOUR_MS = 3_600_000

/** Asks a connection for its rate card, keeps it when it is new, and says what changed. */
export async function fetchCard(db: Db, name: string, connector: CloudConnector, who: string) {
  const card = await connector.rateCard()
  const before = (await listRateCards(db)).filter(c => c.provider === card.provider && c.validFrom < card.validFrom).sort((a, b) => a.validFrom < b.validFrom ? 1 : -1)[0]
  const previous = before ? await findRateCard(db, card.provider, before.validFrom) : null
  const { changed, replaced } = await saveRateCard(db, card, who)
  const counts = new Map<string, number>()
  for (const { change } of previous ? compareCards(previous, card) : []) counts.set(change, (counts.get(change) ?? 0) + 1)
  const differs = [...counts].map(([change, n]) => `${n} ${change}`).join(', ')
  const said = replaced && !changed ? `nothing new: the card of ${card.validFrom} was loaded already` : `the card of ${card.validFrom}, ${card.prices.length} prices${differs ? `: ${differs}` : ''}`
  await noteAsked(db, name, said)
  return { provider: card.provider, validFrom: card.validFrom, prices: card.prices.length, said }
}

/** Looks every minute which connections are due. @returns how to stop it. */
export function watchRateCards(db: Db): () => void {
  let looking = false
  async function look() {
    if (looking) return
    looking = true
    try {
      for (const { connection, everyHours, lastAskedAt } of await listSchedules(db)) {
        const connector = connectors()[connection]
        const due = everyHours > 0 && (!lastAskedAt || Date.now() - new Date(lastAskedAt).getTime() >= everyHours * HOUR_MS)
        if (connector && due) await fetchCard(db, connection, connector, 'the schedule').catch((error: Error) => noteAsked(db, connection, error.message))
      }
    }
    finally {
      looking = false
    }
  }
  // a look that fails is tried again at the next one; what a connection did not do is noted beside it
  const timer = setInterval(() => void look().catch((error: Error) => console.error(error)), LOOK_EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}
