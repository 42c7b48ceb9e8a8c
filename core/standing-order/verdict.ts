import { addDays, type Day } from '../time/day'
import type { Does, NoticeWay, OrderDefinition, PersonForm } from './definition'
import type { FoundResource } from './found'
import { makerOf, type Maker, type RegisteredPerson } from './maker'
import { dayText } from '../text/day-text'

/** What an order comes to about one thing it has found. */
export type Verdict =
  /** It is done: a tag is set, somebody is written to, a saving is acted on. */
  | { to: 'do'; deed: OrderDeed; because: string }
  /** A person says which of some it is. `key` is the tag that waits for it. */
  | { to: 'ask'; key: string; candidates: { person: string; value: string }[]; because: string }
  /** It has not been found for long enough. */
  | { to: 'wait'; until: Day; because: string }
  /** Nothing is done about it. */
  | { to: 'leave'; because: string }
export type OrderDeed =
  { deed: 'tag'; key: string; value: string } | { deed: 'notify'; person: string; by: NoticeWay } | { deed: 'act'; saving: string }

/** An exception: a resource that an order leaves alone until a day, exclusive; null for good. */
export type OrderException = { resourceId: string; reason: string; until: Day | null }

export type Around = {
  register: readonly RegisteredPerson[]
  exceptions: readonly OrderException[]
  /** Since when the order has found it, by resource; what is found for the first time is not there. */
  foundSince: ReadonlyMap<string, Day>
  today: Day
}

/** What an order does about one thing it has found, with the reason. Whatever is not certain is asked. */
export function verdictOn(found: FoundResource, { does, waitDays }: OrderDefinition, around: Around): Verdict {
  const exception = around.exceptions.find(one => one.resourceId === found.resourceId && holds(one, around.today))
  if (exception) return { to: 'leave', because: exceptionWords(exception) }
  const since = around.foundSince.get(found.resourceId) ?? around.today
  const until = addDays(since, waitDays)
  if (until > around.today) return { to: 'wait', until, because: `found since ${dayText(since)}; nothing is done before ${dayText(until)}` }
  return doing(found, does, around)
}

/** Whether an exception holds on a day. */
export const holds = ({ until }: OrderException, today: Day): boolean => until === null || until > today
export const exceptionWords = ({ until, reason }: OrderException): string =>
  `excepted ${until === null ? 'for good' : `until ${dayText(until)}`}: ${reason}`

function doing(found: FoundResource, does: Does, { register }: Around): Verdict {
  switch (does.deed) {
    case 'tag':
      return { to: 'do', deed: { deed: 'tag', key: does.key, value: does.value.text }, because: 'it has no such tag' }
    case 'tag owner':
      return owner(found, does, register)
    case 'notify': {
      const person = found.owner ?? does.otherwise
      if (person === null) return { to: 'leave', because: 'nobody owns it, and the order names nobody else to write to' }
      const because = found.owner ? 'it is theirs by the rules of allocation' : 'nobody owns it by the rules of allocation'
      return { to: 'do', deed: { deed: 'notify', person, by: does.by }, because }
    }
    case 'act':
      return { to: 'do', deed: { deed: 'act', saving: found.saving!.id }, because: found.saving!.title }
  }
}

/** The tag of whoever made it, where one person is certain; else some to choose among. */
function owner(found: FoundResource, { key, form }: { key: string; form: PersonForm }, register: readonly RegisteredPerson[]): Verdict {
  const byId = new Map(register.map(person => [person.id, person]))
  const candidates = (people: readonly (string | null)[]) =>
    [...new Set(people)].flatMap(id => {
      const person = id === null ? undefined : byId.get(id)
      const value = person && written(person, form)
      return person && value ? [{ person: person.id, value }] : []
    })
  const ask = (people: readonly (string | null)[], because: string): Verdict => ({
    to: 'ask',
    key,
    candidates: candidates(people),
    because,
  })
  if (!found.makings.length) return ask([found.owner], 'no event tells who made it')
  const makers = found.makings.map(({ by }) => ({ by, maker: makerOf(by, register) }))
  const people = [...new Set(makers.flatMap(({ maker }) => peopleOf(maker)))]
  const isCertain = people.length === 1 && makers.every(({ maker }) => maker.kind === 'person')
  if (isCertain) {
    const value = written(byId.get(people[0]!)!, form)
    const [{ by, maker }] = makers as [(typeof makers)[number]]
    if (!value) return ask([found.owner], `${byId.get(people[0]!)!.name} made it, and has no address to write into the tag`)
    return { to: 'do', deed: { deed: 'tag', key, value }, because: `«${by}» is read as ${maker.read}: ${byId.get(people[0]!)!.name}` }
  }
  const said = makers.map(({ by, maker }) => `«${by}» ${SAYS[maker.kind]}`).join(', ')
  return ask(people.length ? people : [found.owner], said)
}

const SAYS: Record<Maker['kind'], string> = {
  person: 'is one person',
  perhaps: 'may be more than one person, or one by an initial only',
  machine: 'is a machine',
  unknown: 'is nobody in the register',
}
const peopleOf = (maker: Maker) => (maker.kind === 'person' ? [maker.person] : maker.kind === 'perhaps' ? maker.people : [])

/** A person as a tag names them; null without what it takes. */
export const written = (person: RegisteredPerson, form: PersonForm): string | null =>
  form === 'mail' ? person.mail : form === 'name' ? person.name : person.id
