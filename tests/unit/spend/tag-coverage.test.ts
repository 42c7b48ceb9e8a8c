// A tag is not yet reported by source and sub account; figures worked out by hand.
import { expect, it } from 'vitest'
import { lateReports, tagCoverage } from '../../../core/spend/tag-coverage'
import { ignoredParts, readSentence, writeSentence } from '../../../core/spend/sentence-address'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const charge = (source: string, SubAccountId: string | null, day: string, amount: string, team?: string): PlainCharge => ({
  day,
  hour: 0,
  currency: 'EUR',
  amount,
  source,
  billedIn: day.slice(0, 7),
  values: { SubAccountId, ChargeCategory: 'Usage' },
  tags: team === undefined ? {} : { team },
})
// payroll has the tag from the start; of the cloud, one sub account since October 2nd, one never; the racks nowhere
const cube = cubeOf([
  charge('payroll', 'staff', '2026-09-01', '1000', 'booking'),
  charge('cloud', 'a', '2026-09-01', '1'),
  charge('cloud', 'a', '2026-10-01', '10'),
  charge('cloud', 'a', '2026-10-02', '100', 'booking'),
  charge('cloud', 'a', '2026-10-03', '7'),
  charge('cloud', 'constructor', '2026-10-01', '20'),
  charge('cloud', 'constructor', '2026-10-03', '300'),
  charge('racks', null, '2026-10-03', '50000'),
])
const scope = (start: string, end: string) => ({ start, end, keep: {}, leaveOut: {} })

it('in a month in which only payroll had it, says who had not', () => {
  expect(lateReports(cube, scope('2026-09-01', '2026-10-01'), 'Tags/team')).toEqual([
    { source: 'cloud', firstDay: '2026-10-02', subAccounts: 1, of: 1 },
  ])
  expect(lateReports(cube, scope('2026-10-01', '2026-11-01'), 'Tags/team')).toEqual([
    { source: 'cloud', firstDay: '2026-10-02', subAccounts: 2, of: 2 },
    { source: 'racks', firstDay: null, subAccounts: 1, of: 1 },
  ])
  expect(lateReports(cube, scope('2026-10-02', '2026-10-03'), 'Tags/team')).toEqual([])
})

it('counts as missing only what could have had it', () => {
  expect(tagCoverage(cube, scope('2026-09-01', '2026-11-01'), 'Tags/team')).toEqual([
    { start: '2026-09-01', currency: 'EUR', tagged: '1000', missing: '0', early: '1' },
    { start: '2026-10-01', currency: 'EUR', tagged: '0', missing: '0', early: '30' },
    { start: '2026-10-02', currency: 'EUR', tagged: '100', missing: '0', early: '0' },
    // 7 of a, which has had it; 300 of the other sub account, whose source has; the racks have it nowhere
    { start: '2026-10-03', currency: 'EUR', tagged: '0', missing: '307', early: '50000' },
  ])
  expect(tagCoverage(cube, scope('2026-09-01', '2026-11-01'), 'Tags/constructor').reduce((n, day) => n + Number(day.early), 0)).toBe(51438)
})

it('an address says what of it could not be read', () => {
  expect(ignoredParts({})).toEqual([])
  expect(ignoredParts({ cost: 'effective', by: 'ServiceName', each: 'day', period: 'this-month', top: '7', constructor: 'x' })).toEqual([
    'constructor=x',
  ])
  expect(
    ignoredParts({
      cost: 'free',
      by: ['ServiceName', 'Nothing'],
      from: '2026-13-01',
      to: '2026-11-01',
      keep: ['NoDimension=1', 'Tags/team=a'],
      where: 'x>y',
    }),
  ).toEqual(['cost=free', 'by=Nothing', 'from=2026-13-01', 'to=2026-11-01', 'keep=NoDimension=1', 'where=x>y'])
  const sentence = readSentence({
    by: ['Tags/team', 'x_Container'],
    without: 'ServiceName',
    columns: 'none',
    across: 'start',
    basis: 'billing',
    count: '0',
  })
  expect(ignoredParts(writeSentence(sentence))).toEqual([])
})
