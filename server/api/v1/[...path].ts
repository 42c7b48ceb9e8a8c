import { Problem } from '../../http/problem'
import { route } from '../../http/route'

export default route(({ event }) => {
  throw new Problem(404, 'no-route', 'There is nothing at this address', `${event.method} ${event.path} is not part of the interface.`)
})
