import { expect, it } from 'vitest'
import { groupLedger, ledgerTotals, type LedgerEntry } from '../../../core/opportunity/ledger-groups'

const line = (id: string, more: Partial<LedgerEntry> = {}): LedgerEntry => ({
  ...{ id, doneAt: '2026-11-24T09:00:00Z', detectorLabel: 'Sleep', owner: 'Petra', currency: 'EUR', promisedMonthly: '10' },
  ...{ promised: '1.004', seen: '1.004', differences: [], again: [], snapshots: [] },
  ...more,
})

it('adds lines up by what they have in common, one group for each currency', () => {
  const lines = [
    line('a'),
    line('b', { owner: null, currency: 'USD', promised: '5', seen: '7', differences: [{ kind: 'use', amount: '2' }] }),
    line('c', { doneAt: '2026-10-02T09:00:00Z', promised: null, seen: null }),
  ]
  expect(
    groupLedger(lines, 'detectorLabel').map(({ label, currency, promisedMonthly, promised, seen, unseen }) => [
      label,
      currency,
      promisedMonthly,
      promised,
      seen,
      unseen,
    ]),
  ).toEqual([
    ['Sleep', 'EUR', '20', '1.004', '1.004', 1],
    ['Sleep', 'USD', '10', '5', '7', 0],
  ])
  expect(groupLedger(lines, 'owner').map(({ label, lines: own }) => [label, own.map(({ id }) => id)])).toEqual([
    ['Petra', ['a', 'c']],
    [null, ['b']],
  ])
  expect(groupLedger(lines, 'month').map(({ label }) => label)).toEqual(['2026-11', '2026-11', '2026-10'])
  expect(groupLedger(lines, 'each').map(({ label }) => label)).toEqual(['a', 'b', 'c'])
  expect(ledgerTotals(lines).map(({ currency, unseen }) => [currency, unseen])).toEqual([
    ['EUR', 1],
    ['USD', 0],
  ])
  expect(ledgerTotals([])).toEqual([])
})

it('cuts what lies between to cents that add up, and leaves promised out where nothing is seen', () => {
  // promised 3 × 0.333 = 0.999, seen 0.60: 1.00 → 0.60; each line alone would round to −0.13, together −0.39
  const lines = ['a', 'b', 'c'].map(id =>
    line(id, {
      ...{ promised: '0.333', seen: '0.2' },
      differences: [
        { kind: 'use', amount: '-0.1' },
        { kind: 'price', amount: '-0.033' },
      ],
    }),
  )
  const [sum] = ledgerTotals([...lines, line('d', { promised: '99', seen: null })])
  expect(sum).toMatchObject({ promised: '0.999', seen: '0.6', unseen: 1 })
  expect(sum!.differences).toEqual([
    { kind: 'use', amount: '-0.3' },
    { kind: 'price', amount: '-0.1' },
  ])
  const [group] = groupLedger(
    [line('k', { currency: 'JPY', promised: '10.6', seen: '9.4', differences: [{ kind: 'new', amount: '-1.2' }] })],
    'each',
  )
  expect(group!.differences).toEqual([{ kind: 'new', amount: '-2' }]) // 11 → 9
})

it('adds up what may have come in the place of what is gone, apart from what is seen', () => {
  const lines = [
    line('a', { again: [{ amount: '1.5' }, { amount: '2.25' }] }),
    line('b', { again: [{ amount: '0.1' }], snapshots: [{ amount: '7' }] }),
  ]
  expect(ledgerTotals(lines)).toMatchObject([
    { seen: '2.008', again: { resources: 3, amount: '3.85' }, snapshots: { resources: 1, amount: '7' } },
  ])
  expect(ledgerTotals([line('a')])).toMatchObject([{ again: null, snapshots: null }])
})
