/** A person as an actor is held against them. */
export type RegisteredPerson = { id: string; name: string; mail: string | null }

/**
 * Who did something, as far as the actor's text tells: one person for certain; some who may be meant; a machine; or nobody that the
 * register knows. `read` is what the text was read as.
 */
export type Maker =
  | { kind: 'person'; person: string; read: string }
  | { kind: 'perhaps'; people: string[]; read: string }
  | { kind: 'machine'; read: string }
  | { kind: 'unknown'; read: string }

/** Words that name a machine, wherever they stand by themselves in an actor's text. */
export const MACHINE_WORDS = ['pipeline', 'service', 'svc', 'system', 'robot', 'bot', 'automation', 'scheduler', 'ci'] as const

/** The rule by which an actor is read, in words. */
export const MAKER_RULE =
  `The part after the last «/», «\\» or «:» counts, without what follows «@» or stands in brackets; dots, dashes and underscores are spaces, ` +
  `and capitals are small letters. It is a person whose address or id it is, or whose whole name it is, in any order of its words. An initial ` +
  `and a last name, or a last name alone, may mean a person: that is asked first. A text with one of the words ${MACHINE_WORDS.join(', ')} is a machine.`

const plain = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
const wordsOf = (text: string) => plain(text).split(' ')
const sorted = (words: readonly string[]) => [...words].sort().join(' ')

/**
 * Reads the actor of an event as a person of the register, by `MAKER_RULE`. Two people of one name are both candidates. Source: common
 * practice, no source.
 */
export function makerOf(actor: string, register: readonly RegisteredPerson[]): Maker {
  const own = actor
    .replace(/\([^)]*\)/g, ' ')
    .split(/[/\\:]/)
    .at(-1)!
  const read = plain(own.split('@')[0]!)
  const words = read.split(' ')
  if (MACHINE_WORDS.some(word => wordsOf(actor).includes(word))) return { kind: 'machine', read }
  if (!read) return { kind: 'unknown', read }
  const address = own.trim().toLowerCase()
  const byAddress = address.includes('@') ? register.filter(({ mail }) => mail?.toLowerCase() === address) : []
  if (byAddress.length) return someone(byAddress, read)
  // an address at another company is not ours, whatever stands before the «@»
  const isForeign = address.includes('@') && !register.some(({ mail }) => mail && domainOf(mail) === domainOf(address))
  const sure = isForeign
    ? []
    : register.filter(({ id, name, mail }) => {
        const forms = [id, ...(mail ? [mail.split('@')[0]!] : [])].map(plain)
        return forms.includes(read) || sorted(wordsOf(name)) === sorted(words)
      })
  if (sure.length) return someone(sure, read)
  const perhaps = register.filter(({ name }) => mayMean(words, wordsOf(name)))
  return perhaps.length ? { kind: 'perhaps', people: perhaps.map(({ id }) => id), read } : { kind: 'unknown', read }
}

const domainOf = (mail: string) => mail.toLowerCase().split('@')[1]
const someone = (people: readonly RegisteredPerson[], read: string): Maker =>
  people.length === 1 ? { kind: 'person', person: people[0]!.id, read } : { kind: 'perhaps', people: people.map(({ id }) => id), read }

/** Whether words may mean a name: its last word alone, with an initial, or with other first words that begin alike. */
function mayMean(words: readonly string[], name: readonly string[]): boolean {
  const [first, last] = [name[0]!, name.at(-1)!]
  if (!words.includes(last) || name.length < 2) return false
  const others = words.filter(word => word !== last)
  return others.every(word => first.startsWith(word) || word.startsWith(first))
}
