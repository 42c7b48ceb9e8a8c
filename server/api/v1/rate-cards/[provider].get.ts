import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { JsonBytes } from '../../../json-bytes'
import { findRateCardText } from '../../../stores/rate-cards'

/** A provider's rate card as of `date`, the newest without one; with a `revision`, that one of just that day. */
export default route(operations.rateCards.find, async ({ database, path, query }) => {
  const { provider } = path
  const { date, revision } = query
  const card = await findRateCardText(database.db, { provider, day: date, revision })
  if (card === null)
    throw notFound(
      'rate card',
      `No rate card of ${provider} is loaded${date ? ` for ${date}` : ''}${revision ? `, revision ${revision}` : ''}. Drop one under Sources.`,
    )
  return new JsonBytes(card)
})
