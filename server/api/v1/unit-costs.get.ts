import { operations } from '../../operations'
import { route } from '../../http/route'

export default route(operations.measures.unitCosts, ({ measures, query }) => measures.unitCosts(query))
