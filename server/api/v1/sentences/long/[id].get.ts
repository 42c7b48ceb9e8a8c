import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sentences.findLong, ({ sentences, path }) => sentences.findLong(path.id))
