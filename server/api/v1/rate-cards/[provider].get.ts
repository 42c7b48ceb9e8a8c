import { getQuery } from 'h3'
import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { findRateCard } from '../../../stores/rate-cards'

/** A provider's rate card as of `date`, the newest without one. */
export default route(async ({ event, database }) => {
  const provider = parameter(event, 'provider')
  const { date } = getQuery(event)
  const card = await findRateCard(database.db, provider, typeof date === 'string' ? date : undefined)
  if (!card) throw notFound('rate card', `No rate card of ${provider} is loaded${date ? ` for ${String(date)}` : ''}. Drop one under Sources.`)
  return card
})
