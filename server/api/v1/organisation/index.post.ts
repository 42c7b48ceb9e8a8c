import { organisation } from '../../../../shared/contracts/reference-data'
import { fileBody } from '../../../http/read-json'
import { body, route } from '../../../http/route'
import { saveOrganisation } from '../../../stores/organisation'

export default route(async ({ event, database, who }) => {
  const file = await body(event, organisation, fileBody)
  const version = await saveOrganisation(database.db, file, who)
  return { people: file.people.length, centres: file.plan.centres.length, rules: file.plan.rules.length, version }
})
