// Words that docs/wording.md gives up are in no text that people read.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

/** The third column of the table: phrases, each in backticks. */
const givenUp = readFileSync('docs/wording.md', 'utf8')
  .split('\n')
  .filter(line => line.startsWith('| ') && !line.startsWith('| word'))
  .flatMap(line => [...line.split('|')[3]!.matchAll(/`([^`]+)`/g)].map(([, phrase]) => phrase!))

/** Texts that a program takes from files of before, not that it shows. */
const taken = new Set(['core/estimate/sheet/paste.ts'])

const filesIn = (folder: string, ending: string) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter(name => name.endsWith(ending))
    .map(name => join(folder, name))

/** What a template shows: all of it but what is code. */
const shownBy = (vue: string) => vue.match(/<template>[\s\S]*<\/template>/)?.[0].replaceAll(/<!--[\s\S]*?-->/g, '') ?? ''
/** Texts of several words in code, without its comments. */
const textsOf = (code: string) =>
  [...code.replaceAll(/\/\*[\s\S]*?\*\/|^\s*\/\/.*$/gm, '').matchAll(/'((?:[^'\\\n]|\\.)* (?:[^'\\\n]|\\.)*)'|`((?:[^`\\]|\\.)*)`/g)].map(
    ([, plain, template]) => plain ?? template!,
  )

const found = (where: string, text: string) => {
  const words = text.replaceAll(/\s+/g, ' ')
  return givenUp.filter(phrase => new RegExp(`\\b${phrase}\\b`, 'i').test(words)).map(phrase => `${where}: ${phrase}`)
}

it('finds a phrase over two lines, in a template and in code', () => {
  expect(givenUp.length).toBeGreaterThan(25)
  expect(found('a', shownBy('<script>const a = "take out"</script><template><b>take\n   out</b></template>'))).toEqual(['a: take out'])
  expect(textsOf("// take out this\nconst a = 'what was taken out' // and `this`").flatMap(text => found('b', text))).toEqual([
    'b: taken out',
  ])
})

it('is in no text that people read', () => {
  const wrong = [
    ...filesIn('app', '.vue').flatMap(file => found(file, shownBy(readFileSync(file, 'utf8')))),
    ...['core', 'server', 'shared', 'app', 'demo', 'stand-ins']
      .flatMap(folder => filesIn(folder, '.ts'))
      .filter(file => !taken.has(file))
      .flatMap(file => textsOf(readFileSync(file, 'utf8')).flatMap(text => found(file, text))),
  ]
  expect(wrong).toEqual([])
})
