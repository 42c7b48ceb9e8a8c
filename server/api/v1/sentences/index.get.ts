import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sentences.list, ({ sentences }) => sentences.list())
