import { dayText } from '../../../shared/words/days'
import { manyOf } from '../../../core/text/many-of'
import { z } from 'zod'
import { compareCards } from '../../../core/ratecard/compare-cards'
import { capabilityOf, findConnector } from '../../connectors/connect'
import type { Connector } from '../../connectors/connector'
import { workFor } from '../../use-cases/work'
import { takeRateCard } from '../../use-cases/take-rate-card'
import type { Tools } from '../../use-cases/work'
import { findRateCard, listRateCards, packedCard } from '../../stores/rate-cards'
import type { JobKind } from './kind'

type Fetched = { provider: string; validFrom: string; prices: number }

/** Asks a connection for its rate card and keeps it when it is new. */
export const rateCard: JobKind<{ connection: string }, Fetched> = {
  kind: 'rate-card',
  does: 'Fetch the rate card',
  argument: z.object({ connection: z.string() }),
  stops: false,
  describe: async ({ connection }) => ({ about: connection, page: '/estimates/rate-cards' }),
  async run({ connection }, { services, who }) {
    return fetchCard(services, await findConnector(services.database.db, connection), who)
  },
}

export const rateCardJob = (connection: string) => `rate-card ${connection}`

/** Asks a connection for its rate card, keeps it when it is new, and says what changed. */
async function fetchCard(services: Tools, connector: Connector, who: string): Promise<{ said: string; result: Fetched }> {
  const { db } = services.database
  const card = await capabilityOf(connector, 'rate card').newest()
  const before = (await listRateCards(db)).filter(c => c.provider === card.provider && c.validFrom < card.validFrom)[0]
  const previous = before ? await findRateCard(db, card.provider, before.validFrom) : null
  const { changed, replaced, revision } = await takeRateCard(workFor(services, services.people.asker(who)), packedCard(card), who)
  const counts = new Map<string, number>()
  for (const { change } of previous ? compareCards(previous, card) : []) counts.set(change, (counts.get(change) ?? 0) + 1)
  const differs = [...counts].map(([change, n]) => `${n} ${change}`).join(', ')
  const said =
    replaced && !changed
      ? `nothing new: the card of ${dayText(card.validFrom)} was loaded already`
      : `the card of ${dayText(card.validFrom)}${revision > 1 ? `, revision ${revision}` : ''}, ${manyOf(card.prices.length, 'price')}${differs ? `: ${differs}` : ''}`
  return { said, result: { provider: card.provider, validFrom: card.validFrom, prices: card.prices.length } }
}
