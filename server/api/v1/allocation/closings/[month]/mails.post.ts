import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.allocation.sendMails, ({ allocation, path, body }) => allocation.sendMails(path, body))
