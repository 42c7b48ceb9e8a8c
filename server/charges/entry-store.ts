import { dictionaryNames, type DictionaryName } from '../../core/focus/star'
import type { Database } from '../db/database'
import { tableName } from '../db/schema/dictionary'
import type { EntryTexts, IdTexts } from './entry-ids'
import { AMONG, dictionaryColumns, entryJson, selectEntries, type Entry } from './entry-sql'

/** Held while entries are made, so that they become visible in the order of their ids: who has seen an id has seen all below it. */
const ENTERING = 7_246_002

/** Where the entries of the dictionaries are kept: each combination of values once, under an id that charges have as their key. */
export class EntryStore {
  constructor(private readonly database: Database) {}

  /** The entries of a dictionary by their hashes: the JSON text of a list of `[id, digest]`. */
  async knownText(name: DictionaryName): Promise<string> {
    const [row] = await this.database.query(
      `select coalesce(json_agg(json_build_array(id, digest)), '[]'::json)::text from ${tableName(name)}`,
    )
    return row![0] as string
  }

  /** Keeps entries that are not kept yet, and tells the id of each, whoever made it. */
  async enter(entries: EntryTexts): Promise<IdTexts> {
    return this.database.transaction(async session => {
      await session.query('select pg_advisory_xact_lock($1)', [ENTERING])
      const given: IdTexts = {}
      for (const name of dictionaryNames) {
        const list = entries[name]
        if (list === undefined) continue
        const columns = ['digest', ...dictionaryColumns(name)]
        const values = columns.map((_, i) => `entry->>${i}`).join(', ')
        // those that are made are not seen by what is read in the same statement, and the other way round
        const [row] = await session.query(
          `with entries as (select entry, place from json_array_elements($1::json) with ordinality as e(entry, place)),
            made as (
              insert into ${tableName(name)} (${columns.join(', ')}) select ${values} from entries order by place
              on conflict (digest) do nothing returning digest, id
            )
          select coalesce(json_agg(coalesce(made.id, kept.id) order by place), '[]'::json)::text
          from entries left join made on made.digest = entry->>0 left join ${tableName(name)} kept on kept.digest = entry->>0`,
          [list],
        )
        given[name] = row![0] as string
      }
      return given
    })
  }

  /** Entries of a dictionary beyond an id, by their ids, as the JSON text of a list; how many there are and the last one's id. */
  async after(name: DictionaryName, id: number, most: number): Promise<{ count: number; last: number; text: string }> {
    const [row] = await this.database.query(
      `select count(*)::int, coalesce(max(id), 0), coalesce(json_agg(${entryJson(name)} order by id), '[]'::json)::text
        from (select * from ${tableName(name)} where id > $1 order by id limit ${most}) entries`,
      [id],
    )
    const [count, last, text] = row as [number, number, string]
    return { count, last, text }
  }

  /** Entries of a dictionary by their ids. */
  async among(name: DictionaryName, ids: readonly number[]): Promise<Entry[]> {
    return (await this.database.query(`${selectEntries(name)} ${AMONG}`, [JSON.stringify(ids)])) as Entry[]
  }

  /** The same as the JSON text of a list of entries. @param ids a JSON list. */
  async textOf(name: DictionaryName, ids: string): Promise<string> {
    const [row] = await this.database.query(
      `select coalesce(json_agg(${entryJson(name)}), '[]'::json)::text from ${tableName(name)} ${AMONG}`,
      [ids],
    )
    return row![0] as string
  }
}
