import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.spend.tagCoverage, ({ spend, body }) => spend.tagCoverage(body))
