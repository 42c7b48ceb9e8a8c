// `npm run demo`: from a fresh clone to the demo company in the browser. Plain Node: it runs before anything is installed.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { createServer } from 'node:net'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { install, npx } from './install.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const host = process.env.HOST || '127.0.0.1'
const port = process.env.PORT || '3000'
const cloudPort = process.env.RAIN_BARREL_CLOUD_PORT || String(Number(port) + 1)
const mailPort = process.env.RAIN_BARREL_MAIL_PORT || String(Number(port) + 2)
const smtpPort = String(Number(mailPort) + 1)
const registerPort = process.env.RAIN_BARREL_REGISTER_PORT || String(Number(smtpPort) + 1)
const chatPort = process.env.RAIN_BARREL_CHAT_PORT || String(Number(registerPort) + 1)
const data = resolve(process.env.RAIN_BARREL_DATA || join(root, '.data'))
const files = join(data, 'demo-files')
process.chdir(root)

install()

const newest = path =>
  statSync(path).isDirectory() ? Math.max(0, ...readdirSync(path).map(name => newest(join(path, name)))) : statSync(path).mtimeMs
const built = join(root, '.output/server/index.mjs')
if (
  !existsSync(built) ||
  newest(built) < Math.max(...['app', 'core', 'server', 'shared', 'nuxt.config.ts', 'package-lock.json'].map(newest))
) {
  console.log('Building …')
  npx(['nuxt', 'build'])
}
if (!existsSync(join(files, 'deliveries.json')) || !existsSync(join(files, 'standing-orders.json'))) {
  console.log("Writing the demo company's bills …")
  npx(['tsx', 'demo/write.ts', files])
}

/** Says at once what to do where a port is taken. */
function mustBeFree(number, setting) {
  return new Promise(resolve =>
    createServer()
      .once('error', () => {
        console.error(`Port ${number} is taken. Is Rain Barrel running already? Otherwise set ${setting} to another port.`)
        process.exit(1)
      })
      .listen(Number(number), '127.0.0.1', function () {
        this.close(resolve)
      }),
  )
}
await mustBeFree(port, 'PORT')
await mustBeFree(cloudPort, 'RAIN_BARREL_CLOUD_PORT')
await mustBeFree(mailPort, 'RAIN_BARREL_MAIL_PORT')
await mustBeFree(registerPort, 'RAIN_BARREL_REGISTER_PORT')
await mustBeFree(chatPort, 'RAIN_BARREL_CHAT_PORT')

const { loadDemo } = await import('./load-demo.mjs')
const children = [
  spawn(process.execPath, ['--import', 'tsx', 'stand-ins/cloud/main.ts'], {
    stdio: 'inherit',
    env: { ...process.env, HOST: '127.0.0.1', PORT: cloudPort, STAND_IN_STATE: join(data, 'stand-in-cloud.json') },
  }),
  spawn(process.execPath, ['--import', 'tsx', 'stand-ins/mail/main.ts'], {
    stdio: 'inherit',
    env: { ...process.env, HOST: '127.0.0.1', PORT: mailPort, SMTP_PORT: smtpPort },
  }),
  spawn(process.execPath, ['--import', 'tsx', 'stand-ins/register/main.ts'], {
    stdio: 'inherit',
    env: { ...process.env, HOST: '127.0.0.1', PORT: registerPort },
  }),
  spawn(process.execPath, ['--import', 'tsx', 'stand-ins/chat/main.ts'], {
    stdio: 'inherit',
    env: { ...process.env, HOST: '127.0.0.1', PORT: chatPort },
  }),
  spawn(process.execPath, [built], {
    stdio: 'inherit',
    env: {
      ...process.env,
      HOST: host,
      PORT: port,
      RAIN_BARREL_DATA: data,
      BRACKWATER_URL: `http://127.0.0.1:${cloudPort}`,
      SKERRY_REGISTER_URL: `http://127.0.0.1:${registerPort}`,
      RAIN_BARREL_URL: process.env.RAIN_BARREL_URL || `http://127.0.0.1:${port}`,
      RAIN_BARREL_CHAT: process.env.RAIN_BARREL_CHAT || `http://127.0.0.1:${chatPort}/hook`,
      RAIN_BARREL_SMTP: process.env.RAIN_BARREL_SMTP || `smtp://127.0.0.1:${smtpPort}`,
    },
  }),
]
let ending = false
const end = code => {
  if (ending) return
  ending = true
  for (const child of children) child.kill('SIGTERM')
  process.exitCode = code
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => end(0))
for (const child of children) child.on('exit', code => end(code ?? 1))

const base = `http://${host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host}:${port}`
for (let tries = 0; !ending; tries++) {
  if (
    await fetch(`${base}/api/v1/health`).then(
      r => r.ok,
      () => false,
    )
  )
    break
  if (tries > 600) {
    console.error('The server did not answer within a minute.')
    end(1)
  }
  await new Promise(r => setTimeout(r, 100))
}
if (!ending) {
  await loadDemo(base, files, line => console.log(line))
  console.log(`\nRain Barrel is at ${base} (Ctrl+C ends it)\n`)
  if (!process.env.CI) {
    const opener = { darwin: 'open', win32: 'explorer' }[process.platform] ?? 'xdg-open'
    if (spawnSync('which', [opener], { stdio: 'ignore' }).status === 0)
      spawn(opener, [base], { stdio: 'ignore', detached: true })
        .on('error', () => {})
        .unref()
  }
}
