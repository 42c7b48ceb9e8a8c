import { eq, inArray, sql } from 'drizzle-orm'
import type { ImportState } from '../../shared/contracts/imports'
import type { Db } from '../db/database'
import { load } from '../db/schema'
import type { LoadedPeriod } from './holdings'

export type LoadRow = typeof load.$inferSelect

/** A file of a delivery that lies in the inbox. */
export type ArrivedFile = { name: string; bytes: number; sha256: string }

/** The job that reads a load. */
export const loadJob = (id: number | string): string => `load ${id}`

/** Tells deliveries apart by the contents of their files, in whatever order. */
export const deliveryKey = (files: readonly { sha256: string }[]): string =>
  files
    .map(file => file.sha256)
    .sort()
    .join(' ')

const openStates: ImportState[] = ['checking', 'loading']
/** Loads that are not ended yet. */
export const loadIsOpen = inArray(load.state, openStates)
export const isOpen = (state: ImportState) => openStates.includes(state)

/** Ends a load, or leaves it waiting: how, and what is said of it. */
export async function finishLoad(
  db: Db,
  id: number,
  state: ImportState,
  message: string | null,
  more: Partial<typeof load.$inferInsert> = {},
): Promise<void> {
  await db
    .update(load)
    .set({ state, message, finishedAt: sql`now()`, ...more })
    .where(eq(load.id, id))
}

/** The billing periods of a load. */
export const periodsOf = ({ id, source, periodEnds }: Pick<LoadRow, 'id' | 'source' | 'periodEnds'>): LoadedPeriod[] =>
  Object.entries(periodEnds).map(([start, end]) => ({ source, start, end, loadId: id }))
