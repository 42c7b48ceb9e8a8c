import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { JsonBytes } from '../../../json-bytes'
import { ratesText } from '../../../stores/beside'

export default route(operations.sources.rates, async ({ database }) => new JsonBytes(`{"rates":${await ratesText(database)}}`))
