import { expect, it } from 'vitest'
import { ref } from 'vue'
import { planEdits } from '../../../app/utils/plan-edits'
import { allocationPlanSchema, type AllocationPlan } from '../../../core/allocation/plan'

/** Edits of a plan that is there, without a page. */
function editing() {
  let plan: AllocationPlan = {
    centres: [
      { id: 'all', name: 'All', parent: null, owner: null },
      { id: 'sea', name: 'Sea', parent: 'all', owner: null },
    ],
    pools: [{ id: 'net', name: 'Network', method: 'direct cost' }],
    rules: ['a', 'b', 'c'].map(id => ({ id, conditions: [{ dimension: 'Tags/team', values: [id] }], target: 'sea' })),
  }
  const open = ref<string | null>(null)
  let made = 0
  const edits = planEdits({
    newest: () => plan,
    editing: open,
    newId: () => `new-${++made}`,
    async change(edit) {
      plan = structuredClone(plan)
      edit(plan)
    },
  })
  return { edits, open, plan: () => plan, rules: () => plan.rules.map(({ id }) => id).join(' ') }
}

it('moves rules by a step or to a place, never past the ends', async () => {
  const { edits, rules } = editing()
  await edits.moveTo('a', 2)
  expect(rules()).toBe('b c a')
  await edits.moveTo('a', 0)
  expect(rules()).toBe('a b c')
  await edits.move('a', -1)
  await edits.move('c', 1)
  expect(rules()).toBe('a b c')
  await edits.move('a', 1)
  expect(rules()).toBe('b a c')
  await edits.remove('a')
  expect(rules()).toBe('b c')
})

it('begins rules, cost centres and pools that can be used, each under an id of its own', async () => {
  const { edits, open, plan, rules } = editing()
  await edits.addRule()
  expect([rules(), open.value]).toEqual(['a b c new-1', 'new-1'])
  await edits.remove('new-1')
  const ids = [await edits.addCentre('sea'), await edits.addCentre('sea'), await edits.addPool(), await edits.addPool()]
  expect(ids).toEqual(['new-cost-centre', 'new-cost-centre-2', 'new-pool', 'new-pool-2'])
  expect(allocationPlanSchema.safeParse(plan()).success).toBe(true)
  await edits.updateCentre('new-cost-centre', centre => void (centre.name = 'Land'))
  await edits.setPool({ id: 'new-pool', name: 'Desk', method: 'even' })
  await edits.removePool('new-pool-2')
  await edits.removeCentre('new-cost-centre-2')
  expect(plan().centres.map(({ name }) => name)).toEqual(['All', 'Sea', 'Land'])
  expect(plan().pools.map(({ name }) => name)).toEqual(['Network', 'Desk'])
  await edits.movePool('new-pool', -1)
  expect(plan().pools.map(({ id }) => id)).toEqual(['new-pool', 'net'])
})

it('splits, merges, and says how pools serve each other', async () => {
  const { edits, plan, rules } = editing()
  await edits.splitCentre('sea', 'Night', '2026-11-01')
  await edits.mergeCentre('sea', 'night', '2026-12-01')
  expect(rules()).toBe('a new-1 b new-2 c new-3')
  expect(plan().centres.map(({ id, from, until }) => [id, from, until])).toEqual([
    ['all', undefined, undefined],
    ['sea', undefined, '2026-12-01'],
    ['night', '2026-11-01', undefined],
  ])
  await edits.setServing('step-down')
  expect(plan().serving).toBe('step-down')
  await edits.setServing(undefined)
  expect(Object.hasOwn(plan(), 'serving')).toBe(false)
})
