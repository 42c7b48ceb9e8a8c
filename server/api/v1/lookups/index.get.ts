import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listLookups } from '../../../stores/lookups'

export default route(operations.allocation.lookups, async ({ database }) => ({
  lookups: (await listLookups(database.db)).map(({ name, lookup: { by, fields, entries }, who, savedAt }) => ({
    ...{ name, by, fields, who, savedAt },
    entries: entries.length,
  })),
}))
