import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import type { WeekStretch } from '../../core/opportunity/measured/quiet-hours'
import { TODAY } from '../../demo/calendar'

/** How the next answer shall go wrong: refused, never sent, sent twice, sent after some seconds, or the request lost before it is read. */
export const behaviours = ['fail', 'time out', 'answer twice', 'take long', 'lose'] as const
export type Behaviour = (typeof behaviours)[number]
export type Reply = { status: number; body: unknown }

/** What somebody has made: a machine of the sandbox, or again what was deleted. `at`: an instant; told late where it lies before others. */
export type Made = {
  name: string
  by: string
  size: string
  at: string
  /** The id of what was deleted and is made again, as it was. */
  again?: string
}

/** Everything the stand-in remembers; survives a restart. */
export type CloudState = {
  /** Its clock: a day and an hour. */
  day: string
  hour: number
  /** With a snapshot of what was deleted, where one was taken first. */
  deletions: Record<string, { day: string; hour: number; snapshot?: boolean }>
  /** Classes and sizes that were changed, oldest first: they hold from the day after on. */
  changes: Record<string, { day: string; to: string }[]>
  /** Hours of every week in which resources stand still, oldest first, each from the hour on in which it was set; none: all week awake. */
  schedules: Record<string, { day: string; hour: number; asleep: readonly WeekStretch[] }[]>
  /** Days on which somebody has started a resource all the same. */
  awake: Record<string, string[]>
  /** Tags that were set since, by resource: on charges from the day after on. */
  tags: Record<string, { day: string; key: string; value: string }[]>
  /** What somebody has made since, such as `{ name: 'trial-x', by: 'jon.aske', size: 'reed-2x4' }`, at the hour it was told. */
  made: Made[]
  /** Whether people make again what they miss, some days after it was deleted. */
  isMadeAgain: boolean
  /** Resources whose changes fail, as often as is said. */
  failing: Record<string, number>
  /** So many changes are taken in a row, then one is asked to wait; 0 for as many as come. */
  inARow: number
  taken: number
  /** Replies to requests that carried a key: the same key gets the same reply and acts no second time. */
  replies: Record<string, Reply>
  next: Behaviour | null
  /** What has changed its mind: gateways, by id, that pass so many GB in each hour of today; what somebody has locked against deletion. */
  passes: Record<string, number>
  locked: string[]
}

const fresh: CloudState = {
  day: TODAY,
  hour: 9,
  deletions: {},
  changes: {},
  schedules: {},
  tags: {},
  made: [],
  isMadeAgain: false,
  awake: {},
  failing: {},
  inARow: 0,
  taken: 0,
  replies: {},
  next: null,
  passes: {},
  locked: [],
}

/** @param begins what a state that is not kept yet begins with, where that is not the usual. */
export function readState(file: string, begins: Partial<CloudState>): CloudState {
  return existsSync(file)
    ? { ...fresh, ...(JSON.parse(readFileSync(file, 'utf8')) as CloudState) }
    : structuredClone({ ...fresh, ...begins })
}

/** Written beside and moved into place: a kill in between leaves the state before. */
export function writeState(file: string, state: CloudState): void {
  mkdirSync(dirname(file), { recursive: true })
  writeFileSync(`${file}.new`, JSON.stringify(state))
  renameSync(`${file}.new`, file)
}
