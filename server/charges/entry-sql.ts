import { dictionaries, type DictionaryName } from '../../core/focus/star'
import { columnName, tableName } from '../db/schema/dictionary'

/** An entry of a dictionary: its id, then its values in the dictionary's order. */
export type Entry = [id: number, ...values: (string | null)[]]

/** Reads entries of a dictionary. */
export const selectEntries = (name: DictionaryName) => `select ${['id', ...dictionaryColumns(name)].join(', ')} from ${tableName(name)}`
/** An `Entry` as a JSON list. */
export const entryJson = (name: DictionaryName) => `json_build_array(${['id', ...dictionaryColumns(name)].join(', ')})`
/** Only those whose ids stand in a JSON list. */
export const AMONG = 'where id in (select value::int from json_array_elements_text($1::json))'
/** The columns of a dictionary in its table, quoted. */
export const dictionaryColumns = (name: DictionaryName) => dictionaries[name].map(column => `"${columnName(column)}"`)
