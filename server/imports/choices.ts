import { and, eq, ne } from 'drizzle-orm'
import { daysLeftEmpty, sharedAccounts } from '../../core/focus/meeting'
import type { ImportOptions, ImportOverlap } from '../../shared/contracts/imports'
import type { ChargeStore } from '../charges/charge-store'
import { mergeSums } from '../charges/sums'
import type { Database } from '../db/database'
import { load } from '../db/schema'
import { Problem } from '../problems/problem'
import { holdingsOf, type LoadedPeriod } from './holdings'
import { finishLoad, periodsOf, type LoadRow } from './load-row'
import { meetingsOf, newerDeliveries, putSideBySide, type Meeting } from './meetings'
import type { ImportDone } from './reading-messages'
import type { Turn } from './turn'

/** What a load meets, and what a person chooses then. */
export class Choices {
  constructor(
    private readonly database: Database,
    private readonly charges: ChargeStore,
    private readonly turn: Turn,
  ) {}

  /** What speaks against a load's counting now. */
  async meetings(row: Pick<LoadRow, 'id' | 'source' | 'periodEnds'>): Promise<Meeting[]> {
    const periods = periodsOf(row)
    return [
      ...(await newerDeliveries(this.database, this.charges, row.id, periods)),
      ...(await meetingsOf(this.database, this.charges, periods)),
    ]
  }

  /** Leaves a load waiting for a person, who is told what it meets. */
  async keepForChoice(id: number, result: ImportDone, meetings: readonly Meeting[]): Promise<void> {
    const { rows, files, periodEnds, warnings, conformance, corrections } = result
    await this.database.db
      .update(load)
      .set({
        state: 'choosing',
        rows,
        files,
        overlaps: meetings.map(overlapOf),
        conformance,
        corrections,
        warnings,
        periods: mergeSums(files.map(file => file.periods)),
        message: meetingText(meetings),
        periodEnds,
      })
      .where(eq(load.id, id))
  }

  /** What can be decided about a load that waits, as things are now. */
  async options(row: LoadRow): Promise<ImportOptions> {
    const meetings = await this.meetings(row)
    const ours = await holdingsOf(this.database, this.charges, periodsOf(row))
    const theirs = meetings.filter(({ theirs }) => theirs.loadId !== row.id).map(meeting => meeting.theirs)
    const others = await this.database.db
      .select()
      .from(load)
      .where(and(eq(load.state, 'choosing'), ne(load.id, row.id)))
    const waiting = (await holdingsOf(this.database, this.charges, others.flatMap(periodsOf))).filter(other =>
      ours.some(own => sharedAccounts(own, other).length),
    )
    return {
      meets: meetings.map(overlapOf),
      waiting: waiting.map(({ loadId, source, start }) => ({ id: String(loadId), source, billingPeriodStart: start })),
      emptyWithThis: daysLeftEmpty(theirs, ours),
      emptyWithOther: theirs.length ? daysLeftEmpty(ours, theirs) : [],
      both: meetings.length > 0 && meetings.every(meeting => meeting.bothCanCount),
    }
  }

  /**
   * Goes on with a load that waits, on what meets it now: `this` loads it and puts away what it meets, `other` leaves all as it is, `both`
   * lets it count beside what it meets, now and from then on, as long as their sub accounts differ.
   * @throws Problem when it does not wait, or both cannot count.
   */
  async choose(id: string, use: 'this' | 'other' | 'both', who: string): Promise<void> {
    await this.turn.take(async () => {
      for (let isDone = false; !isDone;) {
        const seen = await this.charges.revision()
        const [row] = /^\d{1,9}$/.test(id)
          ? await this.database.db
              .select()
              .from(load)
              .where(and(eq(load.id, Number(id)), eq(load.state, 'choosing')))
          : []
        if (!row) throw new Problem('conflict', 'no-choice', 'There is nothing to choose', 'The load does not wait for a choice any more.')
        if (use === 'other') {
          await this.charges.drop(row.id)
          await finishLoad(this.database.db, row.id, 'stopped', 'What was loaded before was kept. Nothing of this delivery was loaded.')
          return
        }
        const meetings = await this.meetings(row)
        if (use === 'both') {
          const not = meetings.find(meeting => !meeting.bothCanCount)
          if (not)
            throw new Problem(
              'conflict',
              'same-money',
              'Both cannot count',
              `${not.source} has charges of the same sub accounts: counting both would count the money twice. Choose one.`,
            )
          for (const { source } of meetings) await putSideBySide(this.database, row.source, source, who)
        }
        const away = use === 'both' ? [] : meetings.filter(({ theirs }) => theirs.loadId !== row.id && !isReplaced(row, theirs))
        const periods = away.map(({ theirs: { source, start } }) => ({ source, start }))
        isDone = await this.charges.swapIn(row.id, row.source, { ...row, conformance: row.conformance! }, periods, seen)
      }
      await this.turn.refresh()
    })
  }
}

/** Whether a billing period is one that the load replaces anyway. */
const isReplaced = ({ source, periodEnds }: Pick<LoadRow, 'source' | 'periodEnds'>, period: LoadedPeriod) =>
  source === period.source && Object.keys(periodEnds).some(start => Date.parse(start) === Date.parse(period.start))

const overlapOf = ({ bothCanCount: _, theirs: __, ...overlap }: Meeting): ImportOverlap => overlap

function meetingText(meetings: readonly Meeting[]): string {
  const newer = meetings.find(({ because }) => because === 'newer')
  if (newer) return `A newer delivery of ${newer.source} counts for the same billing period. The newer counts unless this one is chosen.`
  const sources = [...new Set(meetings.map(({ source }) => source))].join(' and ')
  return `${sources} has delivered the same billing account for the same time. Choose what counts.`
}
