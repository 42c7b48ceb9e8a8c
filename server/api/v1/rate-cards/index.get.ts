import { route } from '../../../http/route'
import { listRateCards } from '../../../stores/rate-cards'

export default route(async ({ database }) => ({ cards: await listRateCards(database.db) }))
