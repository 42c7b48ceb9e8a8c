// npm run restore -- FILE
import { existsSync } from 'node:fs'
import { MaintenanceFailed } from '../maintenance/manifest'
import { restoreBackup } from '../maintenance/restore'
import { command, maintainedPlace } from './place'

await command(async () => {
  const [file] = process.argv.slice(2)
  if (!file || !existsSync(file))
    throw new MaintenanceFailed(file ? `There is no file ${file}.` : 'Name the file to restore: npm run restore -- FILE')
  const place = maintainedPlace()
  const { madeAt, tables, segments } = await restoreBackup(file, place)
  console.log(
    `Restored ${tables.length} tables and ${segments.length} segments of ${madeAt} into ${place.url ? 'the database of DATABASE_URL' : place.dataDir}.`,
  )
  console.log('Automatic jobs go on when Rain Barrel starts: see Sources, Automatic jobs, if another copy of it still runs elsewhere.')
  return 0
})
