import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Lookup } from '../../../core/spend/lookup'
import { isSameLookup, lookupDifference, lookupDifferenceWords } from '../../../core/spend/lookup-difference'
import { isLookupTable, lookupTable, readLookupTable } from '../../../core/spend/lookup-table'

const day = fc.constantFrom(null, '2026-01-31', '2026-11-01')
const name = fc.constantFrom('a', 'constructor', '__proto__', 'ä b', '0', 'x,"y"')
const fields = ['site', 'ledger account']
const entry = fc.record({
  key: name,
  match: fc.constantFrom(undefined, 'pattern' as const),
  from: day,
  until: day,
  values: fc.dictionary(fc.constantFrom(...fields), name),
})

it('what it writes as a table it reads back as the same lookup', () => {
  fc.assert(
    fc.property(fc.array(entry, { maxLength: 8 }), entries => {
      const lookup: Lookup = { by: 'Tags/team', fields, entries }
      const { lookup: read, wrong } = readLookupTable(lookupTable(lookup))
      expect(wrong).toEqual([])
      // what is not said and what is undefined are the same
      expect(JSON.parse(JSON.stringify(read))).toEqual(JSON.parse(JSON.stringify(lookup)))
      expect(isSameLookup(lookupDifference(lookup, read!))).toBe(true)
    }),
  )
})

it('names every wrong line with its reason, and takes nothing of it', () => {
  const heads = ['Tags/team', 'valid from', 'match', 'site']
  const rows = [
    ['booking', '2026-11-01', '', 'Harbour'],
    ['', '', '', 'Quay'],
    ['freight', '1.11.2026', 'like', 'Quay'],
    ['', '', '', ''],
    ['customs', '', '', 'Quay', 'more'],
  ]
  expect(readLookupTable({ heads, rows })).toEqual({
    lookup: null,
    wrong: [
      { line: 3, why: 'it has no Tags/team' },
      { line: 4, why: '«1.11.2026» is no day: write valid from like 2026-11-01' },
      { line: 4, why: '«like»: write pattern or nothing under match' },
      { line: 6, why: 'it has 5 cells, and the table 4 columns' },
    ],
  })
  expect(readLookupTable({ heads: ['Tags/team', 'valid from', ' ', 'site', 'site'], rows: [] }).wrong.map(({ why }) => why)).toEqual([
    'a column has no name',
    'the column «site» appears twice',
  ])
  expect(readLookupTable({ heads: ['Tags/team', 'match'], rows: [] }).wrong.map(({ why }) => why)).toEqual([
    'it has no column that says something of each Tags/team',
  ])
  const isBase = (dimension: string) => dimension === 'Tags/team'
  expect([['Tags/team', 'x'], ['Tags/team'], ['Datum', 'x'], []].map(heads => isLookupTable(heads, isBase))).toEqual([
    true,
    false,
    false,
    false,
  ])
})

it('tells two states of a lookup apart by key and days', () => {
  const at = (key: string, site: string, more = {}) => ({ key, from: null, until: null, values: { site }, ...more })
  const before: Lookup = {
    by: 'Tags/team',
    fields: ['site', 'old'],
    entries: [at('a', '1'), at('b', '1'), at('d*', '1', { match: 'pattern' })],
  }
  const after: Lookup = {
    by: 'ResourceName',
    fields: ['site', 'new'],
    entries: [at('b', '2'), at('a', '1'), at('d*', '1'), at('a', '1', { from: '2026-01-01', until: '2026-02-01' })],
  }
  const difference = lookupDifference(before, after)
  expect(difference).toEqual({
    added: ['d*', 'a from 2026-01-01 until 2026-02-01'],
    removed: ['d* (pattern)'],
    changed: ['b'],
    fields: { added: ['new'], removed: ['old'] },
    by: { before: 'Tags/team', after: 'ResourceName' },
  })
  expect(lookupDifferenceWords(difference)).toBe(
    '2 entries added, 1 entry changed, 1 entry removed, field «new» added, field «old» removed, it goes by ResourceName, not by Tags/team',
  )
  expect(lookupDifferenceWords(lookupDifference(before, before))).toBe('nothing differs')
  // the order says nothing
  expect(isSameLookup(lookupDifference(before, { ...before, entries: [...before.entries].reverse() }))).toBe(true)
})
