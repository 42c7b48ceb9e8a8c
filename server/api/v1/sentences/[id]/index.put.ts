import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sentences.save, ({ sentences, path, body }) => sentences.save(path.id, body))
