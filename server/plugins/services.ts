import { dirname } from 'node:path'
import { checkDataFolder } from '../db/check-folder'
import { dataFolder, openServices } from '../services'

export default defineNitroPlugin(nitro => {
  process.env.HOST ||= '127.0.0.1' // read when the server begins to listen, after the plugins
  // import.meta.url is not set yet while plugins run; the built server is started by its own path, dev says where it built to
  const serverDir = process.env.RAIN_BARREL_SERVER || dirname(process.argv[1]!)
  try {
    if (!process.env.DATABASE_URL) checkDataFolder(dataFolder()) // before the server listens
  } catch (error) {
    console.error((error as Error).message)
    process.exit(1)
  }
  const opened = openServices(serverDir)
  opened.catch((error: Error) => {
    console.error(error.message)
    process.exit(1)
  })
  nitro.hooks.hook('close', async () => {
    await (await opened).close()
  })
})
