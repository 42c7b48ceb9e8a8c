import { detectors } from '../../../core/opportunity/detectors'
import type { OrderRunView, OrderRunWhole, StandingOrders } from '../../../shared/contracts/standing-orders'
import { notFound } from '../../problems/problem'
import { jobsOf } from '../../stores/jobs'
import { listPeople } from '../../stores/people'
import {
  findOrder,
  findRun,
  listExceptions,
  listOrders,
  listRuns,
  orderJob,
  STANDING_ORDER,
  type RunHead,
  type StoredOrder,
} from '../../stores/standing-orders'
import { summary } from './run-order'
import type { Work } from '../work'

/** Runs of each order that are shown. */
const RUNS_SHOWN = 12
type ViewWork = Pick<Work, 'database' | 'people'>

/** The orders as they stand, by name, with their newest runs. */
export async function ordersView({ database: { db }, people }: ViewWork): Promise<StandingOrders> {
  const [orders, runs, exceptions, jobs, persons] = await Promise.all([
    listOrders(db),
    listRuns(db, RUNS_SHOWN),
    listExceptions(db),
    jobsOf(db, STANDING_ORDER),
    listPeople(db),
  ])
  return {
    orders: orders.map(order => {
      const job = jobs.get(orderJob(order.id))
      return {
        ...{ id: order.id, definition: order.definition, isOn: order.isOn, isTried: order.triedRevision === order.revision },
        ...{
          who: people.nameOf(order.who),
          changedAt: iso(order.changedAt),
          nextAt: (order.isOn && job?.roundDue && iso(job.roundDue)) || null,
        },
        exceptions: exceptions
          .filter(one => one.order === order.id)
          .map(({ resourceId, reason, until, who, at }) => ({ resourceId, reason, until, who: people.nameOf(who), at: iso(at) })),
        runs: runs.filter(run => run.order === order.id).map(run => runView(order, run, run.counts, people)),
      }
    }),
    detectors: detectors.map(({ detector, label }) => ({ detector, label })),
    people: persons.map(({ id, name }) => ({ id, name })),
  }
}

const iso = (at: string) => new Date(at).toISOString()

function runView(order: StoredOrder, run: Omit<RunHead, 'counts'>, counts: Record<string, number>, people: Work['people']): OrderRunView {
  const { id, isDry, cause, state, said } = run
  return {
    ...{ id, order: run.order, isDry, cause, state, said },
    ...{ isCurrent: run.revision === order.revision, who: people.nameOf(run.who) },
    ...{ beganAt: iso(run.beganAt), endedAt: run.endedAt && iso(run.endedAt) },
    counts: Object.entries(counts).map(([one, count]) => ({ state: one as OrderRunView['counts'][number]['state'], count: Number(count) })),
  }
}

/** One run with all that it found. @throws Problem where there is none. */
export async function runWhole({ database: { db }, people }: ViewWork, id: number): Promise<OrderRunWhole> {
  const run = await findRun(db, id)
  const order = run && (await findOrder(db, run.order))
  if (!run || !order) throw notFound('run', 'It may have been forgotten: the newest sixty of each order are kept.')
  const counts: Record<string, number> = {}
  for (const { state } of run.items) counts[state] = (counts[state] ?? 0) + 1
  const view = runView(order, run, counts, people)
  return { ...view, said: view.said || summary(run.items), items: run.items }
}
