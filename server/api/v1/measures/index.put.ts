import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measures.save, ({ measures, body }) => measures.save(body))
