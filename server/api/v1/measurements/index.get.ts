import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measurements.state, ({ measurements }) => measurements.state())
