import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.chooseLoad, ({ loads, path, body }) => loads.choose(path.id, body))
