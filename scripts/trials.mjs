// `npm run trials`: whether the recipes of CONTRIBUTING hold. What each folder of `trials/` adds is put into a copy of the code, where it
// may bring two files and touch two lists; then everything is compiled and the trials' own tests run. Plain Node.
import { spawnSync } from 'node:child_process'
import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { TYPE_PROGRAMS } from './types.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const copy = mkdtempSync(join(tmpdir(), 'rain-barrel-trials-'))
const MOST_FILES = 2
const MOST_LISTS = 2
let failed = 0
const fail = said => {
  failed++
  console.error(`✗ ${said}`)
}

const filesIn = folder =>
  readdirSync(folder).flatMap(name => {
    const path = join(folder, name)
    return statSync(path).isDirectory() ? filesIn(path) : [path]
  })

/** Puts one recipe's files and lines into the copy. */
function apply(recipe) {
  const folder = join(root, 'trials', recipe)
  const added = filesIn(join(folder, 'add')).map(path => relative(join(folder, 'add'), path))
  const own = added.filter(path => !path.startsWith('tests/'))
  const lines = JSON.parse(readFileSync(join(folder, 'lines.json'), 'utf8'))
  const lists = new Set(lines.map(({ file }) => file))
  if (!added.some(path => path.startsWith('tests/'))) fail(`${recipe} has no test`)
  if (own.length > MOST_FILES) fail(`${recipe} takes ${own.length} files: ${own.join(', ')}`)
  if (lists.size > MOST_LISTS) fail(`${recipe} touches ${lists.size} lists: ${[...lists].join(', ')}`)
  for (const path of added) {
    if (existsSync(join(copy, path))) fail(`${recipe} would overwrite ${path}`)
    cpSync(join(folder, 'add', path), join(copy, path), { recursive: true })
  }
  for (const { file, before, within, line } of lines) {
    const path = join(copy, file)
    const text = readFileSync(path, 'utf8')
    const mark = before ?? within
    if (text.split(mark).length !== 2) fail(`${recipe}: «${mark}» is not there once in ${file}`)
    writeFileSync(path, text.replace(mark, before ? `${line}\n${mark}` : `${mark}${line}`))
  }
  console.log(`${recipe}: ${own.length} ${own.length === 1 ? 'file' : 'files'}, lines in ${[...lists].join(' and ')}`)
}

function run(what, command, args) {
  const { status, stdout, stderr } = spawnSync(command, args, { cwd: copy, encoding: 'utf8', maxBuffer: 1e8 })
  if (status === 0) return console.log(`✓ ${what}`)
  console.error(`${stdout}\n${stderr}`)
  fail(what)
}

try {
  const { stdout } = spawnSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1e8,
  })
  for (const path of stdout.split('\n')) {
    if (path && existsSync(join(root, path)) && !path.startsWith('trials/')) cpSync(join(root, path), join(copy, path), { recursive: true })
  }
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))
  const recipes = readdirSync(join(root, 'trials')).sort()
  for (const recipe of recipes) apply(recipe)
  run('prepared', 'npx', ['--no-install', 'nuxt', 'prepare'])
  for (const [name, [command, ...args]] of TYPE_PROGRAMS) run(name, command, args)
  run(`${recipes.length} trials`, 'npx', ['--no-install', 'vitest', 'run', '--project', 'unit', 'tests/unit/trials'])
} finally {
  rmSync(copy, { recursive: true, force: true })
}
if (failed) console.error(`${failed} failed`)
process.exit(failed ? 1 : 0)
