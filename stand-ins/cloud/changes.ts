import { z } from 'zod'
import { linesOf } from '../../core/ratecard/find-price'
import { HOURS_A_WEEK } from '../../core/opportunity/measured/quiet-hours'
import { brackwaterCard } from '../../demo/rate-cards'
import type { CloudResource, Use } from '../../demo/inventory'
import type { CloudState, Reply } from './state'

/** What can be done to resources of a kind. */
export const actionsOfKind: Partial<Record<Use['kind'], readonly string[]>> = {
  server: ['delete', 'change size', 'schedule', 'tag'],
  database: ['change size', 'schedule', 'tag'],
  disk: ['delete', 'snapshot and delete', 'change class', 'tag'],
  'load balancer': ['delete', 'tag'],
  gateway: ['delete', 'tag'],
  objects: ['tag'],
  snapshot: ['tag'],
  logs: ['tag'],
}
const tagSet = z.object({ key: z.string().min(1).max(128), value: z.string().max(256) })
const meterOf: Partial<Record<Use['kind'], string>> = { server: 'server-hour', database: 'database-hour', disk: 'disk-gb-month' }

const stretches = z.array(
  z.object({
    begin: z
      .int()
      .min(0)
      .max(HOURS_A_WEEK - 1),
    hours: z.int().min(1).max(HOURS_A_WEEK),
  }),
)

/** What a resource is set to now: its class or size. */
export function settingsOf({ id, use }: CloudResource, state: CloudState): Record<string, string> {
  const to = state.changes[id]?.at(-1)?.to
  if (use.kind === 'disk') return { class: to ?? use.variant }
  return use.kind === 'server' || use.kind === 'database' ? { size: to ?? use.size } : {}
}

/** The tags of a resource now: its own, and those that were set since. */
export const tagsOf = ({ id, tags }: CloudResource, state: CloudState): Record<string, string> =>
  Object.fromEntries([...Object.entries(tags), ...(state.tags[id] ?? []).map(({ key, value }) => [key, value] as const)])

/**
 * What becomes of a change of class, size or hours, or of a deletion (`after: 'snapshot'` of one that waits for that), and what the cloud
 * remembers; null where nothing has changed.
 */
export function change(
  method: string,
  resource: CloudResource,
  body: Record<string, unknown>,
  state: CloudState,
): { reply: Reply; next: Partial<CloudState> | null } {
  const { id, name, use } = resource
  const refuse = (status: number, error: string) => ({ reply: { status, body: { error } }, next: null })
  if (state.deletions[id]) return refuse(404, `there is no ${name} any more`)
  if (state.locked.includes(id)) return refuse(409, `${name} is locked against ${method === 'DELETE' ? 'deletion' : 'changes'}`)
  const left = state.failing[id] ?? 0
  if (left > 0) return { ...refuse(503, `${name} is being moved, try later`), next: { failing: { ...state.failing, [id]: left - 1 } } }
  if (state.inARow && state.taken >= state.inARow) return { ...refuse(429, 'too many at once, wait a second'), next: { taken: 0 } }
  const at = `${state.day}T${String(state.hour).padStart(2, '0')}:00:00Z`
  const done = (next: Partial<CloudState>) => ({ reply: { status: 200, body: { id, at } }, next: { ...next, taken: state.taken + 1 } })
  if (method === 'DELETE') {
    if (!actionsOfKind[use.kind]?.includes('delete')) return refuse(405, `a ${use.kind} cannot be deleted here`)
    if (body.after !== undefined && body.after !== 'snapshot') return refuse(400, 'it can be deleted at once, or after a snapshot')
    const snapshot = body.after === 'snapshot'
    if (snapshot && !actionsOfKind[use.kind]?.includes('snapshot and delete')) return refuse(405, `no snapshot is taken of a ${use.kind}`)
    return done({ deletions: { ...state.deletions, [id]: { day: state.day, hour: state.hour, ...(snapshot && { snapshot }) } } })
  }
  if (body.tag !== undefined) {
    if (!actionsOfKind[use.kind]?.includes('tag')) return refuse(405, `a ${use.kind} has no tags`)
    const tag = tagSet.safeParse(body.tag)
    if (!tag.success) return refuse(400, 'name a key and a value')
    return done({ tags: { ...state.tags, [id]: [...(state.tags[id] ?? []), { day: state.day, ...tag.data }] } })
  }
  if (body.stopped !== undefined) {
    if (!actionsOfKind[use.kind]?.includes('schedule')) return refuse(405, `a ${use.kind} does not stop`)
    const asleep = stretches.safeParse(body.stopped)
    if (!asleep.success) return refuse(400, 'name stretches of a week: the hour each begins and how many hours it is long')
    const { day, hour } = state
    return done({ schedules: { ...state.schedules, [id]: [...(state.schedules[id] ?? []), { day, hour, asleep: asleep.data }] } })
  }
  const to = body.class ?? body.size
  const now = Object.values(settingsOf(resource, state))[0]
  if (typeof to !== 'string' || !now) return refuse(400, 'name a class or a size')
  if (body.from !== now) return refuse(409, `${name} is «${now}», not «${String(body.from)}»`)
  const meter = meterOf[use.kind]
  if (!meter || !linesOf(brackwaterCard, meter, resource.region).some(({ variant }) => variant === to))
    return refuse(400, `there is no «${to}» in ${resource.region}`)
  return done({ changes: { ...state.changes, [id]: [...(state.changes[id] ?? []), { day: state.day, to }] } })
}
