import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sentences.remove, ({ sentences, path }) => sentences.remove(path.id))
