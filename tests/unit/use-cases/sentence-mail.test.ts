import { expect, it } from 'vitest'
import { People, type Asker } from '../../../server/people'
import type { StoredSentence } from '../../../server/stores/sentences'
import { sentenceMail } from '../../../server/use-cases/sentence-mail'

const sentence = (more: Partial<StoredSentence> = {}) =>
  ({
    name: 'Spend, by account',
    description: '',
    body: { query: {} },
    schedule: { to: ['finance@skerry.example'], every: 'month', format: 'csv' },
    ...more,
  }) as StoredSentence
const asker = (more: Partial<Asker> = {}): Asker => ({ id: 'siri', name: 'Siri Vaage', bound: null, ...more })
/** The mail of a sentence for someone who sees no charges; null for what is not of a part. */
const mailOf = (within: string[] | null, of = sentence()) =>
  sentenceMail(
    {
      seen: { ask: async () => ({ revision: 1, result: { sources: [], firstDay: null, lastDay: null, within } }) },
      exporter: {},
      asker: asker(),
    } as never,
    of,
  )

it('says in words why nothing is sent: nothing is loaded, nothing of it is theirs, nobody is named', async () => {
  expect(await mailOf(null)).toBe('Nothing is loaded yet: nothing was sent.')
  expect(await mailOf([])).toBe('Siri Vaage sees no charges: nothing was sent.')
  expect(await mailOf(null, sentence({ schedule: null }))).toBe('The sentence is sent to nobody: name someone under its schedule.')
})

it('what runs for a person sees what they see; for one who is gone nothing, for nobody all', async () => {
  const rows = [
    { id: 'siri', name: 'Siri Vaage', role: 'lead', bound: ['fleet'], seesPools: false },
    { id: 'ines', name: 'constructor', role: 'finance', bound: null, seesPools: true },
  ]
  let kept = rows
  const people = new People({ db: { select: () => ({ from: () => ({ orderBy: async () => kept }) }) } } as never)
  const bounds = () => ['siri', 'Siri Vaage', 'constructor', 'gone', 'nobody chosen', ''].map(said => people.actingFor(said).bound?.centres)
  // before there is anybody, nobody is gone
  expect(bounds()).toEqual([undefined, undefined, undefined, undefined, undefined, undefined])
  await people.refresh()
  expect(bounds()).toEqual([['fleet'], ['fleet'], undefined, [], undefined, []])
  expect([people.asker('gone').bound, people.asker('siri').bound, people.asker(undefined).id, people.asker('').name]).toEqual([
    null,
    { centres: ['fleet'], seesPools: false },
    'nobody chosen',
    'nobody chosen',
  ])
  expect(['ines', 'toString'].map(id => people.nameOf(id))).toEqual(['constructor', 'toString'])
  kept = []
  await people.refresh()
  expect(people.nameOf('siri')).toBe('siri')
})
