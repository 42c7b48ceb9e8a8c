import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.people.list, ({ persons }) => persons.list())
