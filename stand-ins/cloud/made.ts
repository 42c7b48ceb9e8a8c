import { addDays, type Day } from '../../core/time/day'
import { makerOf, type CloudResource } from '../../demo/inventory'
import { drawn } from '../../demo/random'
import type { CloudState, Made } from './state'

export const madeId = ({ name, again }: Made) => (again ? `${again}-again` : `bw:north-fjord:server:made-${name}`)

/** So many days a machine that somebody has made runs. */
const DAYS = 40

/** What somebody has made since: machines of the sandbox, and what was deleted, as it was, without its tags. */
export const madeResources = ({ made }: CloudState, planted: readonly CloudResource[]): CloudResource[] =>
  made.flatMap((one): CloudResource[] => {
    const day = one.at.slice(0, 10)
    const was = planted.find(({ id }) => id === one.again)
    if (one.again) return was ? [{ ...was, id: madeId(one), since: day, until: null, tags: {} }] : []
    const about = { name: one.name, type: 'Server', account: 'sandbox', region: 'north-fjord', product: 'made' }
    const machine = { environment: 'build', seasonal: false, tags: {}, use: { kind: 'server', size: one.size } } as const
    return [{ ...about, ...machine, id: madeId(one), since: day, until: addDays(day, DAYS) }]
  })

/** The snapshots that were taken of disks before they were deleted; they are kept until somebody deletes them. */
export const snapshotsTaken = ({ deletions }: CloudState, there: readonly CloudResource[]): CloudResource[] =>
  Object.entries(deletions).flatMap(([id, { day, snapshot }]): CloudResource[] => {
    const was = there.find(one => one.id === id)
    if (!snapshot || was?.use.kind !== 'disk') return []
    const { createdBy: _, ...own } = was
    const about = { id: `${id}-snapshot`, name: `${was.name}-snapshot`, type: 'Snapshot', since: day, until: null, protects: id }
    return [{ ...own, ...about, use: { kind: 'snapshot', gb: was.use.gb } }]
  })

/** One in so many of what was deleted is made again, and that from so many days later on, within as many more. */
const ONE_IN = 3
const AFTER_DAYS = 3

/** What people make again up to a day, of what was deleted and they miss: under its name, by whoever had made it or somebody else. */
export function madeAgainUntil(day: Day, { deletions, made }: CloudState, planted: readonly CloudResource[]): Made[] {
  const known = new Set(made.map(({ again }) => again))
  return Object.entries(deletions).flatMap(([id, deleted]) => {
    const was = planted.find(one => one.id === id)
    const on = addDays(deleted.day, AFTER_DAYS + Math.floor(drawn('again on', id) * AFTER_DAYS))
    if (!was || known.has(id) || on > day || drawn('again', id) >= 1 / ONE_IN) return []
    return [{ name: was.name, by: makerOf(was) ?? 'jon.aske', size: '', at: `${on}T10:00:00Z`, again: id }]
  })
}

/** The event that tells of the making of a resource, with the record as the cloud keeps it. */
export const created = (resourceId: string, at: string, by: string) => ({
  ...{ id: `${resourceId}/created`, at, resourceId, what: 'created', by },
  raw: JSON.stringify({ record: 'audit', time: at, action: 'create', target: resourceId, actor: by, from: 'control service' }),
})
