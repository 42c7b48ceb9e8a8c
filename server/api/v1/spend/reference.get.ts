import { route } from '../../../http/route'
import { readReference } from '../../../stores/spend-reference'

export default route(({ database }) => readReference(database.db))
