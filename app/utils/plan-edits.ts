import type { Ref } from 'vue'
import type { CentreTree, CostCentre, Pool, Rule } from '../../core/allocation/plan'
import { freeIdIn, merged, splitOff } from '../../core/allocation/tree-edits'

/** What edits of a plan work with. */
export type PlanEditing = {
  /** Changes the tree that is shown, in the draft. */
  change: (edit: (tree: CentreTree) => void) => Promise<void>
  /** The tree that is changed. */
  newest: () => CentreTree
  /** The rule whose editor is open. */
  editing: Ref<string | null>
  newId: () => string
}

/** The edits of rules, cost centres and pools of a tree that a page offers. */
export function planEdits({ change, newest, editing, newId }: PlanEditing) {
  async function addRule(rule: Rule = { id: newId(), conditions: [{ dimension: 'SubAccountName', values: [] }], target: '' }) {
    await change(next => {
      next.rules.push(rule)
    })
    editing.value = rule.id
  }

  const move = (id: string, step: 1 | -1) =>
    change(next => {
      const at = next.rules.findIndex(r => r.id === id)
      const [rule] = next.rules.splice(at, 1)
      next.rules.splice(Math.max(0, Math.min(next.rules.length, at + step)), 0, rule!)
    })
  /** Puts a rule at a place of the list, as dragging does. */
  const moveTo = (id: string, place: number) =>
    change(next => {
      const at = next.rules.findIndex(r => r.id === id)
      const [rule] = next.rules.splice(at, 1)
      next.rules.splice(place, 0, rule!)
    })
  const remove = (id: string) =>
    change(next => {
      next.rules = next.rules.filter(r => r.id !== id)
    })
  const update = (id: string, edit: (rule: Rule) => void) =>
    change(next => {
      const rule = next.rules.find(r => r.id === id)
      if (rule) edit(rule)
    })

  const updateCentre = (id: string, edit: (centre: CostCentre) => void) =>
    change(next => {
      const centre = next.centres.find(one => one.id === id)
      if (centre) edit(centre)
    })
  /** A cost centre below another, at the end of what is there. @returns its id. */
  async function addCentre(parent: string): Promise<string> {
    const id = freeIdIn(newest(), 'New cost centre')
    await change(next => {
      next.centres.push({ id, name: 'New cost centre', parent, owner: null })
    })
    return id
  }
  const removeCentre = (id: string) =>
    change(next => {
      next.centres = next.centres.filter(one => one.id !== id)
    })
  const takeTree = (made: CentreTree) => change(next => void Object.assign(next, made))
  const mergeCentre = (id: string, into: string, day: string) => takeTree(merged(newest(), id, into, day, newId))
  const splitCentre = (id: string, name: string, day: string) => takeTree(splitOff(newest(), id, name, day))

  /** Puts a pool in the place of another of its id. */
  const setPool = (pool: Pool) =>
    change(next => {
      next.pools = next.pools.map(one => (one.id === pool.id ? pool : one))
    })
  async function addPool(): Promise<string> {
    const id = freeIdIn(newest(), 'New pool')
    await change(next => {
      next.pools.push({ id, name: 'New pool', method: 'direct cost' })
    })
    return id
  }
  const removePool = (id: string) =>
    change(next => {
      next.pools = next.pools.filter(one => one.id !== id)
    })
  const movePool = (id: string, step: 1 | -1) =>
    change(next => {
      const at = next.pools.findIndex(one => one.id === id)
      const [pool] = next.pools.splice(at, 1)
      next.pools.splice(Math.max(0, Math.min(next.pools.length, at + step)), 0, pool!)
    })
  const setServing = (serving: CentreTree['serving']) =>
    change(next => {
      if (serving) next.serving = serving
      else delete next.serving
    })

  return {
    ...{ addRule, move, moveTo, remove, update, updateCentre, addCentre, removeCentre, mergeCentre, splitCentre },
    ...{ setPool, addPool, removePool, movePool, setServing },
  }
}
