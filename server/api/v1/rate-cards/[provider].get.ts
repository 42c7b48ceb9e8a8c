import { cardAsked } from '../../../../shared/contracts/reference-data'
import { notFound } from '../../../http/problem'
import { parameter, query, route } from '../../../http/route'
import { findRateCard } from '../../../stores/rate-cards'

/** A provider's rate card as of `date`, the newest without one; with a `revision`, that one of just that day. */
export default route(async ({ event, database }) => {
  const provider = parameter(event, 'provider')
  const { date, revision } = query(event, cardAsked)
  const card = await findRateCard(database.db, provider, date, revision)
  if (!card)
    throw notFound(
      'rate card',
      `No rate card of ${provider} is loaded${date ? ` for ${date}` : ''}${revision ? `, revision ${revision}` : ''}. Drop one under Sources.`,
    )
  return card
})
