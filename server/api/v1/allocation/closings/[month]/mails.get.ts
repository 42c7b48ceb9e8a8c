import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.allocation.mails, ({ allocation, path }) => allocation.mails(path))
