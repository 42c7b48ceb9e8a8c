import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.people.remove, ({ persons, path }) => persons.remove(path.id))
