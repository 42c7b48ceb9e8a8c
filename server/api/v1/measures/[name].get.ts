import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measures.measure, ({ measures, path }) => measures.measure(path.name))
