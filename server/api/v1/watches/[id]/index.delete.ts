import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.removeWatch, ({ sources, path }) => sources.unwatch(path.id))
