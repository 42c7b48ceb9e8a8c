import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveOrganisation } from '../../../stores/organisation'

export default route(operations.allocation.takeOrganisation, async ({ database, cube, who, body: file }) => {
  const version = await saveOrganisation(database.db, file, who)
  await cube.refreshReference()
  return { people: file.people.length, centres: file.plan.centres.length, rules: file.plan.rules.length, version }
})
