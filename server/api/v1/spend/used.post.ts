import { operations } from '../../../http/operations'
import { checkDimensions } from '../../../http/question'
import { route } from '../../../http/route'

/** What ran in a month within a narrowing: the quantity of each SKU by resource, from which an estimate can start. */
export default route(operations.spend.used, ({ cube, body: asked }) => {
  checkDimensions([...Object.keys(asked.keep), ...Object.keys(asked.leaveOut)])
  return cube.reply('used', asked)
})
