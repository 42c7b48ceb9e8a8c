import { createHash } from 'node:crypto'
import pg from 'pg'

/** A PostgreSQL server to run on, as `scripts/postgres.mjs` starts one; without it everything runs on the embedded database. */
export const postgresUrl = process.env.TEST_POSTGRES_URL
const TEMPLATE = 'rain_barrel_empty'

/** The address of a database of the server. */
export function databaseUrl(name: string): string {
  const url = new URL(postgresUrl!)
  url.pathname = `/${name}`
  return url.toString()
}

/** Does a statement on the server. */
export async function onServer(statement: string, database = 'postgres'): Promise<pg.QueryResult> {
  const client = new pg.Client({ connectionString: databaseUrl(database) })
  await client.connect()
  try {
    return await client.query(statement)
  } finally {
    await client.end()
  }
}

const made = new Map<string, Promise<string>>()

/** A database without anything for a data folder; undefined where the folder has its own. */
export const emptyDatabaseOf = (folder: string) => databaseOf(folder, 'template0')

/**
 * The database that belongs to a data folder, made from the empty one when it is asked for first; undefined where the folder has its own.
 */
export async function databaseOf(folder: string, template = TEMPLATE): Promise<string | undefined> {
  if (!postgresUrl) return undefined
  const known = made.get(folder) ?? make(folder, template)
  made.set(folder, known)
  return known
}

async function make(folder: string, template: string): Promise<string> {
  const name = `test_${createHash('sha256').update(folder).digest('hex').slice(0, 24)}`
  await onServer(`create database "${name}" template "${template}"`)
  return databaseUrl(name)
}
