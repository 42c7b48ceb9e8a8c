import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.people.save, ({ persons, path, body }) => persons.save(path.id, body))
