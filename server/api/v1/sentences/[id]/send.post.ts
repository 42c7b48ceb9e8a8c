import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sentences.send, ({ sentences, path }) => sentences.send(path.id))
