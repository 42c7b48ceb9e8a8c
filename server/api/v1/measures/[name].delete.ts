import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measures.drop, ({ measures, path }) => measures.drop(path.name))
