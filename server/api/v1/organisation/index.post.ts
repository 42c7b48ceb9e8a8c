import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.takeOrganisation, ({ allocation, body }) => allocation.takeOrganisation(body))
