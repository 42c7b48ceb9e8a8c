import { operations } from '../../../http/operations'
import { checkScope } from '../../../http/question'
import { route } from '../../../http/route'

/** What the charges of a narrowing are made of: quantity × unit price, largest first. */
export default route(operations.spend.priceParts, ({ cube, body: question }) => {
  checkScope({ ...question, splitBy: [] })
  return cube.reply('priceParts', question)
})
