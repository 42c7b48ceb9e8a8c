// Rules as they are written: begun from the queue, previewed, kept as a draft, saved on the version they were begun on.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { useAllocation } from '../../../app/stores/allocation'
import { useData } from '../../../app/stores/data'
import { useRuleValues } from '../../../app/stores/rule-values'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { answersPacked } from '../../../core/spend/answer'
import type { Question } from '../../../core/spend/question'
import { answering, refusal, type Asked } from '../../support/answering'
import { cubeOf } from '../../support/random-charges'

const plan: AllocationPlan = {
  centres: [
    { id: 'all', name: 'All', parent: null, owner: null },
    { id: 'booking', name: 'Booking', parent: 'all', owner: null },
  ],
  pools: [],
  rules: [{ id: 'r1', conditions: [{ dimension: 'Tags/team', values: ['booking'] }], target: 'booking' }],
}
const group = (team: string | null, SubAccountName: string, amount: string) => ({
  ...{ values: { SubAccountName, 'Tags/team': team }, currency: 'EUR', amount, resources: 1, count: 1 },
})
const queue = [group('bookings', 'live', '9'), group('bookings', 'test', '4'), group(null, 'live', '3')]
const settled = (version: number) => ({
  ...{
    statements: [],
    catches: [],
    pools: [],
    unallocated: queue,
    flows: [],
    revision: 1,
    version,
    basis: '',
    closed: null,
    adjustments: [],
  },
  proof: [{ currency: 'EUR', bill: '16', direct: '0', shared: '0', unallocated: '16', equal: true }],
})
const month = { month: '2026-10', measure: 'billedCost' as const }
let version = 3
let log: Asked[]
const kept = new Map<string, string>()

beforeEach(() => {
  vi.unstubAllGlobals()
  kept.clear()
  version = 3
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, text: string) => kept.set(key, text),
    removeItem: (key: string) => kept.delete(key),
  })
  log = answering({
    'GET people': () => ({ body: { people: [], who: '', me: null } }),
    'GET allocation/versions': () => ({ body: { versions: [{ version, who: 'Ines', savedAt: '2026-11-30T10:00:00Z' }] } }),
    'GET allocation/closings': () => ({ body: { closed: [], firstOpen: null } }),
    'GET allocation/plan': () => ({ body: { version, plan, who: 'Ines', savedAt: '2026-11-30T10:00:00Z' } }),
    'GET allocation/settlement': () => ({ body: settled(version) }),
    'POST allocation/preview': () => ({ body: settled(0) }),
    'PUT allocation/plan': ({ body }) =>
      (body as { basedOn: number }).basedOn === version
        ? { body: { version: ++version } }
        : refusal(409, 'conflict', 'The rules have changed meanwhile.'),
  })
})
/** A page that is opened anew: nothing of the one before is left but what this machine keeps. */
async function opened() {
  setActivePinia(createPinia())
  const allocation = useAllocation()
  await allocation.load(month)
  return allocation
}
const asked = (path: string) => log.filter(one => one.path.startsWith(path)).length

it('a rule from the queue is for that group alone, goes nowhere until someone chooses, and cannot be saved meanwhile', async () => {
  const allocation = await opened()
  await allocation.ruleFor(queue[0]!)
  const rule = allocation.plan!.rules.at(-1)!
  expect(rule.conditions).toEqual([
    { dimension: 'Tags/team', values: ['bookings'] },
    { dimension: 'SubAccountName', values: ['live'] },
  ])
  expect([rule.target, allocation.editing]).toEqual(['', rule.id])
  expect(allocation.planProblem?.detail).toBe('choose the cost centre or pool that it goes to')
  // nothing is asked of a rule that cannot be used, and it cannot be saved; another month shows what is saved
  await allocation.load({ ...month, month: '2026-11' })
  expect(asked('allocation/preview')).toBe(0)
  await allocation.save()
  expect(asked('allocation/plan')).toBe(1)
  await allocation.update(rule.id, one => {
    one.target = 'booking'
  })
  expect([allocation.planProblem, asked('allocation/preview')]).toEqual([null, 1])
  await allocation.save()
  expect([version, allocation.draft, kept.size]).toEqual([4, null, 0])
})

it('a draft survives that the page is left, and is saved on the version it was begun on', async () => {
  const before = await opened()
  await before.addRule({ id: 'r2', conditions: [{ dimension: 'SubAccountName', values: ['test'] }], target: 'booking' })
  version = 5 // somebody saves in between
  const after = await opened()
  expect(after.draft?.rules.map(({ id }) => id)).toEqual(['r1', 'r2'])
  expect(asked('allocation/preview')).toBe(2)
  await after.save()
  expect([after.saveProblem?.detail, after.planProblem]).toEqual(['The rules have changed meanwhile.', null])
  expect(after.draft?.rules).toHaveLength(2)
  // it goes on being previewed, and what others saved is read when it is let go
  await after.load({ ...month, month: '2026-11' })
  expect(asked('allocation/preview')).toBe(3)
  await after.discard()
  expect([after.draft, after.saveProblem, kept.size, after.saved?.version]).toEqual([null, null, 0, 5])
  expect((await opened()).draft).toBeNull()
})

it('undo leads back step by step, to no draft at all; what is no draft is not taken up', async () => {
  const allocation = await opened()
  await allocation.addRule()
  expect(allocation.planProblem?.detail).toContain('name at least one value')
  await allocation.move(allocation.plan!.rules.at(-1)!.id, -1)
  expect([allocation.plan!.rules.length, allocation.canUndo]).toEqual([2, true])
  await allocation.undo()
  await allocation.undo()
  expect([allocation.draft, allocation.planProblem, allocation.canUndo, kept.size]).toEqual([null, null, false, 0])
  for (const odd of ['{', '{"basedOn":1}', '{"basedOn":1.5,"plan":{"rules":[],"centres":[]}}', 'null']) {
    kept.set('rain-barrel-rules-draft', odd)
    expect((await opened()).draft, odd).toBeNull()
  }
})

it('a further tree over the same money is made, named, changed by itself and deleted', async () => {
  const allocation = await opened()
  const id = await allocation.addTree()
  expect(id).toBe('new-tree')
  await allocation.load({ ...month, tree: id })
  expect(allocation.plan!.centres).toEqual([{ id: 'all', name: 'All of it', parent: null, owner: null }])
  expect(log.at(-1)!.body).toMatchObject({ tree: 'new-tree', plan: { trees: [{ id: 'new-tree' }] } })
  await allocation.renameTree('Products')
  const below = await allocation.addCentre('all')
  // what is asked of another state of the tree is asked within the whole plan
  expect(allocation.planWith({ ...allocation.plan!, rules: [] }).trees![0]!.centres.map(one => one.id)).toEqual(['all', below])
  expect(allocation.trees.map(({ name, centres }) => [name, centres.length])).toEqual([['Products', 2]])
  // the first tree is as it was
  expect(allocation.draft!.centres).toEqual(plan.centres)
  await allocation.removeTree()
  // a tree that is not there any more gives way to the first
  expect([allocation.trees, allocation.treeId, allocation.plan!.centres.length]).toEqual([[], null, 2])
})

it('a tree that only a draft has shows what it gave before a rule was begun in it; opened anew, the first tree is shown', async () => {
  const allocation = await opened()
  const tree = await allocation.addTree()
  await allocation.load({ ...month, tree })
  await allocation.addRule({ id: 'begun', conditions: [{ dimension: 'SubAccountName', values: ['test'] }], target: '' })
  expect(allocation.planProblem).not.toBeNull()
  await allocation.load({ ...month, month: '2026-11', tree })
  const last = log.at(-1)!
  expect([last.method, last.path, (last.body as { plan: AllocationPlan }).plan.trees![0]!.rules]).toEqual([
    'POST',
    'allocation/preview',
    [],
  ])
  expect(log.filter(({ path }) => path.startsWith('allocation/settlement') && path.includes('tree='))).toEqual([])
  expect(allocation.treeId).toBe(tree)

  const after = await opened()
  await after.load({ ...month, tree })
  expect([after.draft?.trees?.[0]?.id, after.treeId, after.problem]).toEqual([tree, null, null])
  expect(log.at(-1)!.path).toMatch(/^allocation\/settlement\?(?!.*tree=)/)
})

it('values of what rules look at come once, with their amounts in the currency that is shown first', async () => {
  const use = (SubAccountName: string | null, amount: string, currency = 'EUR') => ({
    ...{ day: '2026-10-02', hour: 0, source: 's', currency, amount, tags: {}, values: { SubAccountName, ChargeCategory: 'Usage' } },
  })
  const cube = cubeOf([use('live', '9'), use('test', '4'), use(null, '-1'), use('abroad', '7', 'USD')])
  const whole = { keep: {}, leaveOut: {}, conditions: [] }
  log = answering({
    'POST spend/answers': ({ body }) => {
      const questions = (body as { questions: Question[] }).questions.map(question => ({ ...whole, ...question }))
      return { body: { answers: answersPacked(cube, questions).map(plain), revision: 1 } }
    },
  })
  setActivePinia(createPinia())
  useData().facts = { firstDay: '2026-10-01', reportCurrency: 'EUR', revision: 1 } as never
  const known = useRuleValues()
  await known.learn(['SubAccountName', 'SubAccountName'])
  await known.learn(['SubAccountName'])
  expect([known.problem, log.length]).toEqual([null, 1])
  expect(known.byDimension.SubAccountName!.map(({ values, amount }) => [values[0], amount])).toEqual([
    ['live', '9'],
    ['test', '4'],
    [null, '-1'],
    ['abroad', '0'],
  ])
  log = answering({})
  await known.learn(['ServiceName'])
  expect(known.problem).not.toBeNull()
  await known.learn(['ServiceName'])
  expect(log).toHaveLength(2)
})

/** As it comes: a packed answer has typed arrays, which JSON has not. */
function plain(answer: ReturnType<typeof answersPacked>[number]) {
  const column = <T extends { codes: ArrayLike<number> }>(one: T) => ({ ...one, codes: Array.from(one.codes) })
  const { rows } = answer
  return {
    ...answer,
    rows: { ...rows, splits: rows.splits.map(column), currencies: column(rows.currencies), starts: rows.starts && column(rows.starts) },
  }
}
