// Runs a command of maintenance as it was built: backup, restore, check. Plain Node.
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const [name] = process.argv.splice(2, 1)
const command = join(dirname(dirname(fileURLToPath(import.meta.url))), `.output/server/cli/${name}.mjs`)
if (existsSync(command)) await import(command)
else {
  console.error('Rain Barrel is not built yet: «npm run build».')
  process.exitCode = 1
}
