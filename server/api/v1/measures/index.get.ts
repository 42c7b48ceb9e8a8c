import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measures.list, ({ measures }) => measures.list())
