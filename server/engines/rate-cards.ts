import { notFound } from '../problems/problem'
import { JsonBytes } from '../json-bytes'
import { findRateCardText, listRateCards, type PackedCard } from '../stores/rate-cards'
import { takeRateCard } from '../use-cases/take-rate-card'
import type { EngineWork } from './engine-work'

/** What providers ask for, and what their SKU codes mean. */
export class RateCards {
  constructor(private readonly work: EngineWork) {}

  async list() {
    return { cards: await listRateCards(this.work.database.db) }
  }

  take(card: PackedCard) {
    return takeRateCard(this.work, card, this.work.asker.id)
  }

  /** A provider's rate card as of `date`, the newest without one; with a `revision`, that one of just that day. */
  async find(provider: string, { date, revision }: { date?: string | undefined; revision?: number | undefined }) {
    const card = await findRateCardText(this.work.database.db, { provider, day: date, revision })
    if (card === null)
      throw notFound(
        'rate card',
        `No rate card of ${provider} is loaded${date ? ` for ${date}` : ''}${revision ? `, revision ${revision}` : ''}. Drop one under Sources.`,
      )
    return new JsonBytes<never>(card)
  }

  /** SKU codes in plain words. */
  describe(skus: string[]) {
    return this.work.seen.reply('skus', skus)
  }
}
