// Every program of types, each checked once. Plain Node. What holds no Vue is checked by the compiler that is native code, four times as
// fast; only pages and components need the one that reads templates. As a program: checks all.
import { spawnSync } from 'node:child_process'
import { pathToFileURL } from 'node:url'

const native = project => [process.execPath, 'node_modules/typescript-native/bin/tsc', '--noEmit', '-p', project]

/** Name and command of each; what `nuxt prepare` writes must be there. */
export const TYPE_PROGRAMS = [
  ['types of the core, alone', native('core')],
  ['types of the server', native('.nuxt/tsconfig.server.json')],
  ['types of what server and pages share', native('.nuxt/tsconfig.shared.json')],
  ['types of the configuration', native('.nuxt/tsconfig.node.json')],
  ['types of demo, stand-ins, benches and tests', native('tsconfig.tools.json')],
  ['types of the pages', [process.execPath, 'node_modules/vue-tsc/bin/vue-tsc.js', '--noEmit', '-p', '.nuxt/tsconfig.app.json']],
]

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  let failed = 0
  for (const [name, [command, ...args]] of TYPE_PROGRAMS) {
    console.log(`— ${name}`)
    if (spawnSync(command, args, { stdio: 'inherit' }).status !== 0) failed++
  }
  process.exit(failed ? 1 : 0)
}
