import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sentences.keepLong, ({ sentences, body }) => sentences.keepLong(body))
