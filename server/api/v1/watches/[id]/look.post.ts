import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.lookAtWatch, ({ sources, path }) => sources.lookAt(path.id))
