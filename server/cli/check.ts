// npm run check
import { existsSync } from 'node:fs'
import { checked } from '../../shared/contracts/maintenance'
import { lockFolder } from '../db/folder-lock'
import { openDatabase } from '../db/open-database'
import { checkAll } from '../maintenance/check'
import { MaintenanceFailed } from '../maintenance/manifest'
import { askServer, command, maintainedPlace, runningServer } from './place'

await command(async () => {
  const place = maintainedPlace()
  if (!place.url && !existsSync(place.dataDir))
    throw new MaintenanceFailed(`There is no data folder ${place.dataDir}. Set RAIN_BARREL_DATA to the right one.`)
  const { read, damaged } = await found()
  for (const { what, count } of read) console.log(`${count} ${what}`)
  for (const { what, mend } of damaged) console.log(`DAMAGED: ${what}. ${mend}`)
  console.log(damaged.length ? `${damaged.length} damaged` : 'everything is whole')
  return damaged.length ? 1 : 0

  async function found() {
    const server = runningServer(place.dataDir)
    if (server) return checked.parse(await (await askServer(server, 'check')).json())
    const unlock = lockFolder(place.dataDir)
    const database = await openDatabase(place)
    try {
      return await checkAll(database)
    } finally {
      await database.close()
      unlock()
    }
  }
})
