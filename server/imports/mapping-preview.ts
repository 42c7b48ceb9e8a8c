import Papa from 'papaparse'
import { applyMapping } from '../../core/focus/mapping/apply-mapping'
import type { Mapping } from '../../core/focus/mapping/mapping'
import { likelyDelimiter, likelyTitleLines, suggestMapping } from '../../core/focus/mapping/suggest-mapping'
import type { MappingPreview } from '../../shared/contracts/mappings'
import type { sources } from '../operations/sources'
import type { BodyOf } from '../operations/operation'

const MOST_ROWS = 30
const LAST_ROWS = 3
const SHOWN_ROWS = 10
/** The header stands within so many lines. */
const MOST_TITLE_LINES = 30
/** The text that a page sends at most. */
const MOST_TEXT = 200_000

/**
 * The first rows of a file as they would become charges, through a given mapping, the one kept for the source, or a first suggestion.
 * @param known the mapping that is kept for the source.
 */
export function previewMapping(
  { source, text, mapping: given }: BodyOf<(typeof sources)['previewMapping']>,
  known: Mapping | null,
): MappingPreview {
  const kept = given ?? known
  const delimiter = kept?.delimiter ?? likelyDelimiter(text)
  const all = text.replace(/^\uFEFF/, '').split(/(?<=\n)/)
  const skipLines = kept?.skipLines ?? titleLines(all, delimiter)
  const lines = all.slice(skipLines).join('')
  const { data } = Papa.parse<string[]>(lines, { delimiter, skipEmptyLines: true })
  // what stands at the end tells whether there is a sum below; a file that was cut may end within a row
  const [header = [], ...below] = data.slice(0, text.length >= MOST_TEXT ? -1 : undefined)
  const rows = [...below.slice(0, MOST_ROWS), ...below.slice(MOST_ROWS).slice(-LAST_ROWS)]
  const mapping = kept ?? suggestMapping(header, rows, delimiter, skipLines)
  const shown = [...rows.slice(0, SHOWN_ROWS), ...rows.slice(SHOWN_ROWS).slice(-LAST_ROWS)]
  const file = applyMapping(mapping, header, source)
  if ('problems' in file)
    return { mapping, saved: !given && kept !== null, header, raw: shown, columns: [], rows: [], problems: file.problems }
  const mapped = shown.map((row, i) => file.row(row, i + 1))
  return {
    mapping,
    saved: !given && kept !== null,
    header,
    raw: shown,
    columns: file.header,
    rows: mapped.map(row => (row !== 'left out' && 'texts' in row ? row.texts : null)),
    problems: mapped.flatMap(row => (row !== 'left out' && 'problems' in row ? row.problems : [])),
  }
}

/** How many lines of the file stand above its header; records are looked at, since a title may be an empty line. */
function titleLines(lines: readonly string[], delimiter: Mapping['delimiter']): number {
  const first = lines
    .slice(0, MOST_TITLE_LINES)
    .map(line => Papa.parse<string[]>(line.replace(/\r?\n$/, ''), { delimiter }).data[0] ?? [''])
  return likelyTitleLines(first)
}
