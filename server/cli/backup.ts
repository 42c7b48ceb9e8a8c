// npm run backup -- FILE
import { createWriteStream, existsSync, renameSync, rmSync } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { lockFolder } from '../db/folder-lock'
import { openDatabase } from '../db/open-database'
import { verifyBackup } from '../maintenance/archive'
import { writeBackup } from '../maintenance/backup'
import { MaintenanceFailed } from '../maintenance/manifest'
import { askServer, command, maintainedPlace, runningServer } from './place'

await command(async () => {
  const [file] = process.argv.slice(2)
  if (!file) throw new MaintenanceFailed('Name the file to write: npm run backup -- FILE')
  if (existsSync(file)) throw new MaintenanceFailed(`${file} is there already. Name another file.`)
  const place = maintainedPlace()
  if (!place.url && !existsSync(place.dataDir))
    throw new MaintenanceFailed(`There is no data folder ${place.dataDir}. Set RAIN_BARREL_DATA to the right one.`)
  // under another name until it is whole and was read back
  const part = `${file}.part`
  try {
    const server = runningServer(place.dataDir)
    if (server) await pipeline(Readable.fromWeb((await askServer(server, 'backup')).body as never), createWriteStream(part))
    else {
      const unlock = lockFolder(place.dataDir)
      const database = await openDatabase(place)
      try {
        await writeBackup(database, createWriteStream(part))
      } finally {
        await database.close()
        unlock()
      }
    }
    const manifest = await verifyBackup(part)
    renameSync(part, file)
    const bytes = [...manifest.tables, ...manifest.segments].reduce((sum, { bytes }) => sum + bytes, 0)
    console.log(
      `${file}: ${manifest.tables.length} tables and ${manifest.segments.length} segments, ${(bytes / 1e6).toFixed(1)} MB, read back and whole.`,
    )
    return 0
  } catch (error) {
    rmSync(part, { force: true })
    throw error
  }
})
