import { mustMaintain } from '../../../http/maintainer'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { checkAll } from '../../../maintenance/check'

/** Reads everything that is kept and names what is damaged. */
export default route(operations.maintenance.check, ({ event, database, token }) => {
  mustMaintain(event, token)
  return checkAll(database)
})
