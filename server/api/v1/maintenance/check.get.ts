import { mustMaintain } from '../../../http/maintainer'
import { route } from '../../../http/route'
import { checkAll } from '../../../maintenance/check'

/** Reads everything that is kept and names what is damaged. */
export default route(({ event, database, token }) => {
  mustMaintain(event, token)
  return checkAll(database)
})
