// What the bill shows after something is gone: a commitment that had covered it and is used by nobody now did not fall, and what may have
// come in its place is named.
import { beforeAll, expect, it } from 'vitest'
import type { FileCharge } from '../../demo/focus-file'
import { savingsState } from '../../shared/contracts/savings'
import { focusCsv } from '../support/charges'
import { cardOf, priceLine } from '../support/daily-charges'
import { daily } from '../support/filed-daily'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post } from '../support/server'

const server = ownServer()
const hour = priceLine('gateway-hour', null, '0.05')
const gb = priceLine('gateway-gb', null, '0.04')

const covering: FileCharge = {
  ...{
    CommitmentDiscountId: 'C-1',
    CommitmentDiscountName: 'Gateways',
    CommitmentDiscountCategory: 'Usage',
    CommitmentDiscountType: 'year',
  },
  ...{ PricingCategory: 'Committed', CommitmentDiscountStatus: 'Used' },
}
type Days = { from?: string; to?: string }
/** Half of its hours are paid as they come, half by the commitment. */
const halfCovered = (name: string, days: Days = {}) => [
  ...daily(name, hour, '12', '0.6', days),
  ...daily(name, hour, '12', '0', { ...days, ...covering, EffectiveCost: '0.3' }),
]
/** What nobody uses of the commitment. */
const unused = (cost: string, days: Days = {}) =>
  daily('', hour, '4', '0', {
    ...days,
    ...covering,
    CommitmentDiscountStatus: 'Unused',
    EffectiveCost: cost,
    ResourceId: '',
    ResourceName: '',
  })
const busy = (days: Days = {}) => [...daily('busy', hour, '24', '1.2', days), ...daily('busy', gb, '10', '0.4', days)]

beforeAll(async () => {
  await server.json('rate-cards', post(cardOf([hour, gb], { provider: 'Testcloud' })))
  const bill = focusCsv([...halfCovered('one'), ...halfCovered('two'), ...unused('0.1'), ...busy()])
  expect(await deliver(server, 'bill', bill)).toMatchObject({ state: 'loaded' })
  const ids = ['one', 'two'].map(name => `fee-without-use/Testcloud/id-${name}`)
  const done = await server.call(
    'savings/decisions',
    post({ ids, state: 'done', doneOn: '2026-10-29' }, { cookie: 'rain-barrel-person=Ines%20Moldal' }),
  )
  expect(done.status).toBe(200)
  // the months after: of the commitment four times as much lies idle, and three are new
  const of = (from: string, to: string) => [
    ...busy({ from, to }),
    ...unused('0.4', { from: from < '2026-10-29' ? '2026-10-29' : from, to }),
  ]
  const october = { from: '2026-10-01', to: '2026-10-29' }
  const since = (name: string, from: string, more: FileCharge = {}) => daily(name, hour, '24', '1.2', { from, to: '2026-11-06', ...more })
  const next = focusCsv([
    ...halfCovered('one', october),
    ...halfCovered('two', october),
    ...unused('0.1', october),
    ...of('2026-10-01', '2026-11-01'),
    ...of('2026-11-01', '2026-11-06'),
    ...since('One', '2026-11-02', { ResourceId: 'one-once-more', SubAccountId: 'sub-2', SubAccountName: 'build' }),
    ...since('third', '2026-11-03'),
    ...since('fourth', '2026-11-04'),
    ...since('elsewhere', '2026-11-03', { SubAccountId: 'sub-2', SubAccountName: 'build' }),
  ])
  expect(await deliver(server, 'bill', next)).toMatchObject({ state: 'loaded' })
})

it('counts of a commitment only what others use now, shared among all that left it free', async () => {
  const { ledger } = savingsState.parse(await server.json('savings'))
  // eight days: 0.60 + 0.30 would have been charged each day. Both left 0.60 a day free, of which 0.30 lie idle beside the 0.10 of before
  for (const name of ['one', 'two'])
    expect(ledger.find(({ resourceName }) => resourceName === name)).toMatchObject({
      snapshots: [],
      ...{ promisedMonthly: '18.25', daysSince: 8, promised: '4.8', seen: '6', seenBilled: '4.8' },
      unusedCommitments: [{ commitment: 'C-1', amount: '1.2' }],
      differences: [{ kind: 'commitment', amount: '1.2' }],
      workings: [
        { isCommitted: false, unitsBefore: '84', costBefore: '4.2', counterfactual: '4.8', actual: '0' },
        { isCommitted: true, unitsBefore: '84', costBefore: '2.1', counterfactual: '2.4', actual: '0' },
      ],
    })
})

it('names what may have come in the place of what is gone: by its name anywhere, one of its kind beside it', async () => {
  const { ledger } = savingsState.parse(await server.json('savings'))
  expect(Object.fromEntries(ledger.map(({ resourceName, again }) => [resourceName, again]))).toEqual({
    // four days of 1.20, three of 1.20; the fourth answers nothing: both are answered
    one: [{ resourceId: 'one-once-more', name: 'One', subAccount: 'build', since: '2026-11-02', amount: '4.8' }],
    two: [{ resourceId: 'id-third', name: 'third', subAccount: 'live', since: '2026-11-03', amount: '3.6' }],
  })
})
