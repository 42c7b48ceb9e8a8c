import { TODAY } from '../../demo/calendar'
import { makerOf, type CloudResource } from '../../demo/inventory'
import { dayNumber, type Day } from '../../core/time/day'

/** A work order: placed, and finished or turned down some looks later. Times are seconds. */
export type Order = {
  no: string
  ref: string
  verb: string
  with: Record<string, unknown>
  state: 'open' | 'finished' | 'turned down'
  at: number
  reason: string | null
  /** So many looks before it is worked on. */
  waits: number
}

export type DeskState = {
  day: Day
  orders: Record<string, Order>
  removed: Record<string, number>
  /** Of what a copy was made before it was removed, and when. */
  copies: Record<string, number>
  settings: Record<string, { name: string; value: string }>
  labels: Record<string, Record<string, string>>
  /** What somebody holds on to, against which verbs. */
  holds: Record<string, { against: 'change' | 'removal'; reason: string; person: string; since: number }[]>
  /** Disks that no machine holds. */
  detached: string[]
  /** So many answers to placed orders are lost. */
  loses: number
  /** So many looks an order waits. */
  waits: number
}
const verbs: Partial<Record<CloudResource['use']['kind'], readonly string[]>> = {
  server: ['remove', 'resize', 'label'],
  database: ['resize', 'label'],
  disk: ['remove', 'copy and remove', 'reclass', 'label'],
  'load balancer': ['remove', 'label'],
}
const removes = (verb: string) => verb === 'remove' || verb === 'copy and remove'
const fresh = (): DeskState => ({
  ...{ day: TODAY, orders: {}, removed: {}, copies: {}, settings: {}, labels: {}, holds: {}, detached: [], loses: 0, waits: 2 },
})

/** What is kept of the work at the desk, and what becomes of orders. */
export function openDesk(inventory: readonly CloudResource[], told: Partial<DeskState>) {
  const state: DeskState = { ...fresh(), ...told }
  const settingOf = ({ id, use }: CloudResource): { name: string; value: string } | null =>
    state.settings[id] ??
    (use.kind === 'disk'
      ? { name: 'class', value: use.variant }
      : use.kind === 'server' || use.kind === 'database'
        ? { name: 'size', value: use.size }
        : null)

  /** @returns why it is turned down; null where it was done. */
  function work({ ref, verb, with: asked }: Order, at: number): string | null {
    const found = inventory.find(({ id }) => id === ref)
    if (!found || state.removed[ref]) return 'it is not there'
    if (!verbs[found.use.kind]?.includes(verb)) return `a ${found.use.kind} does not ${verb}`
    const held = (state.holds[ref] ?? []).find(({ against }) => against === (removes(verb) ? 'removal' : 'change'))
    if (held) return `${held.person} holds it: ${held.reason}`
    if (verb === 'copy and remove') state.copies[ref] = at
    if (removes(verb)) state.removed[ref] = at
    else if (verb === 'label') state.labels[ref] = { ...state.labels[ref], [String(asked.name)]: String(asked.value) }
    else {
      const now = settingOf(found)
      if (now?.value !== asked.from) return `it is «${now?.value}», not «${String(asked.from)}»`
      state.settings[ref] = { name: now!.name, value: String(asked.to) }
    }
    return null
  }

  return {
    state,
    inventory,
    verbsOf: (kind: string): readonly string[] => (Object.hasOwn(verbs, kind) ? verbs[kind as keyof typeof verbs]! : []),
    conditionOf: (one: CloudResource) => {
      const setting = settingOf(one)
      return { settings: setting ? [[setting.name, setting.value]] : [], holds: state.holds[one.id] ?? [], status: 'running' }
    },
    /** The same number is the same order, whatever is asked with it. */
    place({ no, ref, verb, with: more }: Pick<Order, 'no' | 'ref' | 'verb' | 'with'>, at: number): Order {
      state.orders[no] ??= { no, ref, verb, with: more, state: 'open', at, reason: null, waits: state.waits }
      return state.orders[no]
    },
    /** An order as it stands; it is worked on when it was looked at often enough. */
    look(no: string, at: number): Order | null {
      const found = Object.hasOwn(state.orders, no) ? state.orders[no]! : null
      if (found?.state !== 'open') return found
      if (found.waits-- > 0) return found
      const reason = work(found, at)
      return Object.assign(found, { state: reason === null ? 'finished' : 'turned down', at, reason })
    },
    happenings: () => {
      const made = inventory.flatMap(one => {
        const actor = makerOf(one)
        const time = dayNumber(one.since) * 86_400 + 8 * 3600
        return actor === null || one.since > state.day
          ? []
          : [{ no: `made-${one.id}`, time, ref: one.id, verb: 'made', actor, record: null }]
      })
      const removed = Object.entries(state.removed).map(([ref, time]) => ({
        ...{ no: `removed-${ref}`, time, ref, verb: 'removed', actor: 'the desk', record: null },
      }))
      return [...made, ...removed].sort((a, b) => a.time - b.time)
    },
  }
}
