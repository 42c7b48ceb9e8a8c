import { route } from '../../../http/route'
import { listSentences } from '../../../stores/sentences'

export default route(async ({ database, who }) => ({ sentences: await listSentences(database.db, who) }))
