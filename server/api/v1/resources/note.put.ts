import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.saveResourceNote, ({ resources, body }) => resources.saveNote(body))
