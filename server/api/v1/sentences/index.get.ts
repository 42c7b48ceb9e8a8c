import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listSentences } from '../../../stores/sentences'

export default route(operations.sentences.list, async ({ database, who }) => ({ sentences: await listSentences(database.db, who) }))
