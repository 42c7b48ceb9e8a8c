import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.beside, ({ allocation, query }) => allocation.beside(query))
