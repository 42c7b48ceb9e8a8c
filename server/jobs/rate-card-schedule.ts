import { connectors } from '../connectors'
import type { CloudConnector } from '../connectors/cloud-connector'
import { compareCards } from '../../core/ratecard/compare-cards'
import { takeRateCard } from '../engine/take-rate-card'
import type { Services } from '../services'
import { listRateCards, findRateCard, listSchedules, noteAsked } from '../stores/rate-cards'
import { repeatedly } from './repeatedly'

type Engine = Pick<Services, 'database' | 'cube'>

const LOOK_EVERY_MS = 60_000
const HOUR_MS = 3_600_000

/** Asks a connection for its rate card, keeps it when it is new, and says what changed. */
export async function fetchCard(engine: Engine, name: string, connector: CloudConnector, who: string) {
  const { db } = engine.database
  const card = await connector.rateCard()
  const before = (await listRateCards(db)).filter(c => c.provider === card.provider && c.validFrom < card.validFrom)[0]
  const previous = before ? await findRateCard(db, card.provider, before.validFrom) : null
  const { changed, replaced, revision } = await takeRateCard(engine, card, who)
  const counts = new Map<string, number>()
  for (const { change } of previous ? compareCards(previous, card) : []) counts.set(change, (counts.get(change) ?? 0) + 1)
  const differs = [...counts].map(([change, n]) => `${n} ${change}`).join(', ')
  const said =
    replaced && !changed
      ? `nothing new: the card of ${card.validFrom} was loaded already`
      : `the card of ${card.validFrom}${revision > 1 ? `, revision ${revision}` : ''}, ${card.prices.length} prices${differs ? `: ${differs}` : ''}`
  await noteAsked(db, name, said)
  return { provider: card.provider, validFrom: card.validFrom, prices: card.prices.length, said }
}

/** Looks every minute which connections are due; what a connection did not do is noted beside it. @returns how to stop it. */
export function watchRateCards(engine: Engine): () => void {
  return repeatedly(LOOK_EVERY_MS, async () => {
    const { db } = engine.database
    for (const { connection, everyHours, lastAskedAt } of await listSchedules(db)) {
      const connector = connectors()[connection]
      const due = everyHours > 0 && (!lastAskedAt || Date.now() - new Date(lastAskedAt).getTime() >= everyHours * HOUR_MS)
      if (connector && due)
        await fetchCard(engine, connection, connector, 'the schedule').catch((error: Error) => noteAsked(db, connection, error.message))
    }
  })
}
