import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measurements.drop, ({ measurements }) => measurements.drop())
