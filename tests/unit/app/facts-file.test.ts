// A file of a lookup or of measures: taken at once where nobody has it, else reviewed, and never taken unseen or in part.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { useData } from '../../../app/stores/data'
import { useFactsFile } from '../../../app/stores/facts-file'
import { answering, refusal, type Asked } from '../../support/answering'

const kept = { by: 'Tags/team', fields: ['site'], entries: [{ key: 'a', from: null, until: null, values: { site: 'Quay' } }] }
const settled = (total: string) => ({
  ...{ catches: [], pools: [], unallocated: [], proof: [], flows: [], revision: 1, version: 1 },
  ...{ basis: '', closed: null, adjustments: [] },
  statements: [{ centre: 'a', currency: 'EUR', direct: total, shared: '0', total, lines: [] }],
})
const plan = { centres: [{ id: 'a', name: 'A', parent: null, owner: null }], pools: [], rules: [] }
let log: Asked[]
let version: number
beforeEach(() => {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
  useData().facts = { firstDay: '2026-11-05', lastDay: '2026-11-20' } as never
  version = 7
  const saved = { who: 'Ines', savedAt: '2026-11-01T00:00:00Z' }
  log = answering({
    'GET lookups': () => ({ body: { lookups: [{ name: 'sites', by: kept.by, fields: kept.fields, entries: 1, ...saved }] } }),
    'GET lookups/sites': () => ({ body: { name: 'sites', lookup: kept, version, ...saved } }),
    'PUT lookups/sites': ({ body }) => ((body as { basedOn?: number }).basedOn === version ? { body: { name: 'sites', entries: 1 } } : refusal(409, 'conflict', 'Another is there.')), // prettier-ignore
    'PUT lookups/new': () => ({ body: { name: 'new', entries: 1 } }),
    'GET measures': () => ({ body: { measures: [] } }),
    'PUT measures': () => ({ body: { saved: [{ name: 'seats', added: 1, changed: 0, unknown: ['nobody'] }] } }),
    'GET allocation/versions': () => ({ body: { versions: [{ version: 1, ...saved }] } }),
    'GET allocation/plan': () => ({ body: { version: 1, plan, ...saved } }),
    'GET allocation/closings': () => ({ body: { closed: [], firstOpen: null } }),
    'GET allocation/settlement': () => ({ body: settled('7') }),
    'POST allocation/preview': () => ({ body: settled('9') }),
  })
})
const changed = 'Tags/team,site\na,Pier\n'

it('takes what nobody has at once, and names cost centres that are not there', async () => {
  const store = useFactsFile()
  expect(await store.receiveLookup('lookup-new.csv', changed)).toBe('lookup «new», 1 entry')
  expect(await store.receiveMeasures('seats.csv', 'measure,unit,date,cost centre,value\nseats,seat,2026-11,nobody,1\n')).toBe(
    'seats: 1 value added, of cost centres that are not there: nobody',
  )
  expect(store.review).toBeNull()
})

it('takes measures as JSON too, as they are given out, and names what is wrong in them', async () => {
  const store = useFactsFile()
  const seats = { name: 'seats', unit: 'seat', grain: 'month', tree: null, values: [{ centre: 'a', date: '2026-11', value: '1' }] }
  expect(await store.receiveMeasures('m.json', JSON.stringify({ measures: [seats] }))).toContain('seats: 1 value added')
  expect(log.find(({ method }) => method === 'PUT')!.body).toEqual({ measures: [seats] })
  const wrong = { ...seats, values: [{ ...seats.values[0]!, value: '-1' }] }
  await expect(store.receiveMeasures('m.json', JSON.stringify({ measures: [wrong] }))).rejects.toThrow(
    /measures 1, values 1, value: -1 is below zero/,
  )
  await expect(store.receiveMeasures('m.json', '{')).rejects.toThrow('not a JSON document')
})

it('holds a lookup against the one that is there, shows what moves, and takes it on that version', async () => {
  const store = useFactsFile()
  expect(await store.receiveLookup('sites.csv', changed)).toBeNull()
  expect(store.review).toMatchObject({ kind: 'lookup', name: 'sites', difference: { added: [], changed: ['a'], removed: [] } })
  await vi.waitFor(() => expect(store.months.left).toBe(0))
  expect(store.months.effects).toEqual([{ month: '2026-11', effects: [{ centre: 'a', currency: 'EUR', difference: '2' }] }])
  expect(store.centres.map(({ name }) => name)).toEqual(['A'])
  const preview = log.find(({ path }) => path.startsWith('allocation/preview'))!.body as { lookups: object }
  expect(preview.lookups).toEqual({ sites: { ...kept, entries: [{ ...kept.entries[0], values: { site: 'Pier' } }] } })
  // another file would take its place unseen
  await expect(store.receiveLookup('other.csv', changed)).rejects.toThrow('«sites.csv» waits to be decided')
  await expect(store.receiveMeasures('m.csv', 'measure\n')).rejects.toThrow('«sites.csv» waits to be decided')
  version = 8
  expect(await store.take()).toBeNull()
  expect(store.problem?.detail).toBe('Another is there.')
  await store.again()
  expect([store.problem, store.review && 'current' in store.review && store.review.current.version]).toEqual([null, 8])
  expect(await store.take()).toBe('lookup «sites», 1 entry')
  expect([store.review, store.busy, store.months.left]).toEqual([null, false, null])
})

it('says what there is already, and looks at nothing then', async () => {
  const store = useFactsFile()
  await store.receiveLookup('sites.json', JSON.stringify(kept))
  expect(log.some(({ path }) => path.startsWith('allocation'))).toBe(false)
  store.leave()
  expect(store.review).toBeNull()
})

it.each([
  ['sites.csv', 'Tags/team,site\n"a,Pier\nb,Quay\n', 'line 2: Quoted field unterminated. Nothing of it was taken.'],
  ['sites.csv', 'Nonsense,site\na,Pier\n', 'a lookup goes by a column of the bill'],
  ['sites.csv', 'Tags/team,site\na,x\na,y\n', 'line 3: «a» holds on days on which entry 1 holds too'],
  ['sites.json', '{', 'It is not a JSON document.'],
  ['sites.json', '{"by":"Tags/team","fields":["a"],"entries":[{"key":""}]}', 'entry 1: '],
])('refuses %s with %j, and takes nothing of it', async (name, text, why) => {
  const store = useFactsFile()
  await expect(store.receiveLookup(name, text)).rejects.toThrow(why)
  expect([store.review, log.filter(({ method }) => method !== 'GET')]).toEqual([null, []])
})
