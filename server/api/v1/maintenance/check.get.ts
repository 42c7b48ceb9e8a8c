import { shownToken } from '../../../http/maintainer'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.maintenance.check, ({ maintenance, event }) => maintenance.check(shownToken(event)))
