// A file of cost centres: taken at once where there are none, reviewed where there are, and never taken unseen.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { useData } from '../../../app/stores/data'
import { useOrganisationFile } from '../../../app/stores/organisation-file'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { answering, refusal, type Asked } from '../../support/answering'

const person = (id: string) => ({ id, name: `The ${id}`, role: 'x', bound: null, seesPools: false })
const plan = (target = 'a'): AllocationPlan => ({
  centres: ['a', 'b'].map(id => ({ id, name: id.toUpperCase(), parent: null, owner: null })),
  pools: [],
  rules: [{ id: 'r', conditions: [{ dimension: 'Tags/team', values: ['x'] }], target }],
})
const settled = (onA: string, onB: string) => ({
  ...{ catches: [], pools: [], unallocated: [], proof: [], flows: [], revision: 1, version: 1 },
  ...{ basis: '', closed: null, adjustments: [] },
  statements: Object.entries({ a: onA, b: onB }).map(([centre, total]) => {
    return { centre, currency: 'EUR', direct: total, shared: '0', total, lines: [] }
  }),
})
let current: { people: unknown[]; plan: AllocationPlan; version: number } | null
let log: Asked[]
beforeEach(() => {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
  useData().facts = { firstDay: '2026-10-05', lastDay: '2026-11-02' } as never
  current = { people: [person('ines')], plan: plan(), version: 4 }
  log = answering({
    'GET people': () => ({ body: { people: [], who: '', me: null } }),
    'GET allocation/closings': () => ({ body: { closed: [], firstOpen: null } }),
    'GET organisation': () => ({ body: current ?? { people: [], plan: null, version: 0 } }),
    'POST organisation': ({ body }) =>
      current && (body as { basedOn?: number }).basedOn !== current.version
        ? refusal(409, 'conflict', 'There are some already.')
        : { body: { people: 1, centres: 2, rules: 1, version: 5 } },
    'GET allocation/settlement': () => ({ body: settled('7', '0') }),
    'POST allocation/preview': () => ({ body: settled('0', '7') }),
  })
})
const text = (value: object) => JSON.stringify(value)
const sent = () => log.filter(({ method, path }) => method === 'POST' && path === 'organisation')
const idle = (store: ReturnType<typeof useOrganisationFile>) => vi.waitFor(() => expect(store.months.left).toBe(0))

it('an empty company takes it at once', async () => {
  current = null
  const store = useOrganisationFile()
  expect(await store.receive('f.json', text({ people: [person('ines')], plan: plan() }))).toBe('1 person, 2 cost centres, 1 rule')
  expect([store.review, sent().length]).toEqual([null, 1])
})

it('beside what is there it is reviewed: what differs, and what moves in each month, the newest first', async () => {
  const store = useOrganisationFile()
  expect(await store.receive('f.json', text({ people: [person('arvid')], plan: plan('b') }))).toBeNull()
  expect(store.review!.people).toEqual({ added: ['The arvid'], changed: [], removed: ['The ines'] })
  expect(store.review!.plan.tree.rules.changed).toEqual([{ name: 'team tag is x → B', fields: ['target'] }])
  await idle(store)
  const effects = [
    { centre: 'a', currency: 'EUR', difference: '-7' },
    { centre: 'b', currency: 'EUR', difference: '7' },
  ]
  expect(store.months.effects).toEqual([
    { month: '2026-11', effects },
    { month: '2026-10', effects },
  ])
  expect([sent().length, store.isSame]).toEqual([0, false])
  expect(await store.take()).toBe('1 person, 2 cost centres, 1 rule')
  expect(sent()[0]!.body).toMatchObject({ basedOn: 4 })
  expect(store.review).toBeNull()
})

it('what somebody has saved meanwhile is not overwritten: the file is held against that', async () => {
  const store = useOrganisationFile()
  await store.receive('f.json', text({ people: [person('ines')], plan: plan('b') }))
  await idle(store)
  current = { people: [person('ines')], plan: plan('b'), version: 5 }
  expect(await store.take()).toBeNull()
  expect([store.problem?.detail, store.review?.current.version]).toEqual(['There are some already.', 4])
  await expect(store.receive('g.json', text({ people: [], plan: plan() }))).rejects.toThrow('«f.json» waits to be decided')
  await store.again()
  expect([store.problem, store.review?.current.version, store.isSame]).toEqual([null, 5, true])
  store.leave()
  expect([store.review, store.months.effects]).toEqual([null, []])
})

it('names every wrong place of a file, and asks nothing', async () => {
  const store = useOrganisationFile()
  await expect(store.receive('f.json', '{')).rejects.toThrow('It is not a JSON document.')
  const wrong = plan('nowhere')
  wrong.centres[1]!.parent = 'gone'
  await expect(store.receive('f.json', text({ people: [{ name: 'no id' }], plan: wrong }))).rejects.toThrow(
    /people 1, id: .*Nothing of it was taken/s,
  )
  await expect(store.receive('f.json', text({ people: [], plan: wrong }))).rejects.toThrow(
    'plan, centres 2, parent: there is no cost centre «gone»; plan, rules 1, target: there is no cost centre or pool «nowhere». Nothing of it was taken.',
  )
  const many = { ...plan(), rules: Array.from({ length: 30 }, (_, i) => ({ ...plan('nowhere').rules[0]!, id: `r${i}` })) }
  await expect(store.receive('f.json', text({ people: [], plan: many }))).rejects.toThrow(/rules 20, target: [^;]* … and 10 more\./)
  expect(log).toEqual([])
})

const centreRows = (...rows: string[]) => ['cost centre,name,below', ...rows].join('\n')

it('a table of cost centres or rules is reviewed like a file of all, in place of its part alone', async () => {
  const store = useOrganisationFile()
  expect(await store.receiveTable('centres', 'c.csv', centreRows('b,B,', 'a,New name,b'))).toBeNull()
  expect(store.review!.plan.tree.centres.changed).toEqual([{ name: 'New name', fields: ['name', 'parent'] }])
  expect(store.review!.file.plan.rules).toEqual(plan().rules)
  expect(store.review!.people).toEqual({ added: [], changed: [], removed: [] })
  await expect(store.receiveTable('rules', 'r.csv', 'rule,goes to,condition,looks at,test,value\nr,a,1,Tags/team,is,y')).rejects.toThrow(
    /waits to be decided/,
  )
  store.leave()
  expect(await store.receiveTable('rules', 'r.csv', 'rule,goes to,condition,looks at,test,value\nr,a,1,Tags/team,is,"y, z"')).toBeNull()
  expect(store.review!.file.plan.rules[0]!.conditions).toEqual([{ dimension: 'Tags/team', values: ['y, z'] }])
})

it('a table with wrong lines is refused with all of them; rules have nothing to go to before there are cost centres', async () => {
  const store = useOrganisationFile()
  await expect(store.receiveTable('centres', 'c.csv', centreRows('a,A,gone', ',B,'))).rejects.toThrow(/line 3: it has no cost centre/)
  await expect(store.receiveTable('centres', 'c.csv', centreRows('a,A,gone'))).rejects.toThrow(/line 2: there is no cost centre «gone»/)
  expect([store.review, sent().length]).toEqual([null, 0])
  current = null
  await expect(store.receiveTable('rules', 'r.csv', 'rule,goes to,condition,looks at,test,value\nr,a,1,Tags/team,is,y')).rejects.toThrow(
    /no cost centres yet/,
  )
  expect(await store.receiveTable('centres', 'c.csv', centreRows('a,A,'))).toBe('1 person, 2 cost centres, 1 rule')
  expect(sent()[0]!.body).toEqual({
    people: [],
    plan: { centres: [{ id: 'a', name: 'A', parent: null, owner: null }], pools: [], rules: [] },
  })
})
