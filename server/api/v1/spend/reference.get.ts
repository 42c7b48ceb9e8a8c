import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { readReference } from '../../../stores/spend-reference'

export default route(operations.spend.reference, ({ database }) => readReference(database.db))
