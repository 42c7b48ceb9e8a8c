import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listRateCards } from '../../../stores/rate-cards'

export default route(operations.rateCards.list, async ({ database }) => ({ cards: await listRateCards(database.db) }))
