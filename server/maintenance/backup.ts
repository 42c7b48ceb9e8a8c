import type { Writable } from 'node:stream'
import { readBytesCopy } from '../charges/bytes-copy'
import type { Database, Session } from '../db/database'
import { archiveWriter } from './archive'
import { BACKUP_FORMAT, MaintenanceFailed, type Manifest } from './manifest'

/** Tables are read again when charges they point to were taken away meanwhile; so often at most. */
const MOST_READINGS = 5
const SEGMENTS = 'charge_segment'

type Listed = { loadId: number; start: string; number: number; rows: number }
type State = { tables: { name: string; columns: string[] }[]; segments: Listed[]; migrations: string[] }

/**
 * Writes everything that is kept into one archive, as it was at one moment: the tables in one transaction, then the segments, which never
 * change, beside it. What others do meanwhile goes on.
 */
export async function writeBackup(database: Database, out: Writable): Promise<Manifest> {
  const archive = archiveWriter(out)
  const kept = new Map<string, Manifest['segments'][number]>()
  for (let reading = 1; reading <= MOST_READINGS; reading++) {
    const folder = reading === 1 ? 'tables' : `tables-${reading}`
    const tables: Manifest['tables'] = []
    // read whole before anything is written: whoever takes the archive slowly holds no transaction open
    const copies: Uint8Array[] = []
    const state = await database.transaction(async session => {
      const state = await stateOf(session)
      for (const { name, columns } of state.tables) {
        const list = columns.map(column => `"${column}"`).join(', ')
        copies.push(await session.copyOut(`select ${list} from "${name}"`, 'format text'))
      }
      return state
    }, 'read')
    for (const { name, columns } of state.tables) {
      const bytes = copies.shift()!
      const rows = bytes.reduce((lines, byte) => lines + (byte === 10 ? 1 : 0), 0) // a line feed within a text is written as \n
      tables.push({ ...(await archive.add(`${folder}/${name}`, bytes)), name, columns, rows })
    }
    const segments: Manifest['segments'] = []
    for (const listed of state.segments) {
      const part = `segments/${listed.loadId}/${listed.start.slice(0, 10)}/${listed.number}`
      const known = kept.get(part) ?? (await keepSegment(database, archive, part, listed))
      if (!known) break
      kept.set(part, known)
      segments.push(known)
    }
    if (segments.length < state.segments.length) continue
    const manifest: Manifest = { format: BACKUP_FORMAT, madeAt: new Date().toISOString(), migrations: state.migrations, tables, segments }
    await archive.end(manifest)
    return manifest
  }
  throw new MaintenanceFailed('Deliveries were loaded again and again while the backup was made. Make it again when fewer arrive.')
}

/** Copies a segment into the archive; null when it is there no longer. */
async function keepSegment(database: Database, archive: ReturnType<typeof archiveWriter>, part: string, listed: Listed) {
  const { loadId, start, number } = listed
  const copied = await database.copyOut(
    `select bytes from ${SEGMENTS} where load_id = ${loadId} and billing_period_start = '${start}' and number = ${number}`,
    'format binary',
  )
  const [bytes] = readBytesCopy(copied)
  return bytes ? { ...(await archive.add(part, bytes)), ...listed } : null
}

async function stateOf(session: Session): Promise<State> {
  const names = (
    await session.query(
      `select table_name::text from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
    )
  ).map(([name]) => name as string)
  const columns = (await session.query(
    `select table_name::text, column_name::text from information_schema.columns where table_schema = 'public' order by table_name, ordinal_position`,
  )) as [string, string][]
  const points = (await session.query(
    `select conrelid::regclass::text, confrelid::regclass::text from pg_constraint where contype = 'f' and conrelid <> confrelid`,
  )) as [string, string][]
  const segments = (await session.query(
    `select load_id, to_char(billing_period_start at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), number, rows from ${SEGMENTS} order by 1, 2, 3`,
  )) as [number, string, number, number][]
  return {
    tables: pointedToFirst(
      names.filter(name => name !== SEGMENTS),
      points,
    ).map(name => ({ name, columns: columns.filter(([table]) => table === name).map(([, column]) => column) })),
    segments: segments.map(([loadId, start, number, rows]) => ({ loadId, start, number, rows })),
    migrations: (await session.query('select hash from drizzle.__drizzle_migrations order by id')).map(([hash]) => hash as string),
  }
}

/** Tables in an order in which each comes after those that it points to. */
function pointedToFirst(names: string[], points: [from: string, to: string][]): string[] {
  const ordered: string[] = []
  const put = (name: string) => {
    if (ordered.includes(name)) return
    for (const [from, to] of points) if (from === name) put(to)
    ordered.push(name)
  }
  names.forEach(put)
  return ordered
}
