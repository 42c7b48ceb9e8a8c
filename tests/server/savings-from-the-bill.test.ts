// What the bill alone says can be saved, without any connection: found, added up once, decided on, and seen on the next bill.
import { beforeAll, expect, it } from 'vitest'
import { billAndSavings, savingsState, thresholdsPreview, type SavingsState } from '../../shared/contracts/savings'
import { focusCsv } from '../support/charges'
import { cardOf, priceLine } from '../support/daily-charges'
import { daily } from '../support/filed-daily'
import { deliver } from '../support/imports'
import { ownServer } from '../support/own-server'
import { post, put, startServer } from '../support/server'

const server = ownServer()
const hour = priceLine('gateway-hour', null, '0.05')
const gb = priceLine('gateway-gb', null, '0.04')
const old = priceLine('disk-gb-month', 'old', '0.1', { includes: { iops: '300', mbps: '40', zones: '1' } })
const anew = priceLine('disk-gb-month', 'new', '0.06', { includes: { iops: '500', mbps: '60', zones: '1' } })
const card = cardOf([hour, gb, old, anew], { provider: 'Testcloud' })

const busy = [...daily('busy', hour, '24', '1.2'), ...daily('busy', gb, '10', '0.4')]
const idle = (to?: string) => daily('idle', hour, '24', '1.2', { Tags: '{"team":"us"}', ...(to && { to }) })
const dollars = daily('dollars', hour, '24', '1.2', { BillingCurrency: 'USD', Tags: '{"team":"them"}' })
const disk = daily('disk', old, '10', '1', { SubAccountId: 'sub-2', SubAccountName: 'build' })

const state = async (headers = {}) => savingsState.parse(await server.json('savings', { headers }))
const decide = (body: object) => server.call('savings/decisions', post(body, { cookie: 'rain-barrel-person=Ines%20Moldal' }))
const stateOf = ({ opportunities }: SavingsState, name: string) => opportunities.find(one => one.resourceName === name)?.state ?? null
const FEE = 'fee-without-use/Testcloud/id-idle'

beforeAll(async () => {
  const centre = (id: string, parent: string | null) => ({ id, name: `Centre ${id}`, parent, owner: null })
  const rule = (team: string) => ({ id: team, conditions: [{ dimension: 'Tags/team', values: [team] }], target: team })
  const people = [{ id: 'lead', name: 'The lead', role: 'lead', mail: null, bound: ['us'] }]
  const plan = {
    centres: [centre('root', null), centre('us', 'root'), centre('them', 'root')],
    pools: [],
    rules: [rule('us'), rule('them')],
  }
  await server.json('organisation', post({ people, plan }))
  await server.json('rate-cards', post(card))
  expect(await deliver(server, 'bill', focusCsv([...busy, ...idle(), ...dollars, ...disk]))).toMatchObject({ state: 'loaded' })
})

it('yields its list with every connector off, and says what the other ways lack', async () => {
  const { connected, opportunities, whole, finders, said } = await state()
  expect(connected).toBe(false)
  // 30 days of 1.20, and of 10 GB-months that cost 0.04 less, for 730 hours
  expect(opportunities.map(one => [one.resourceName, one.monthlySaving, one.currency, one.counted, one.centre, one.firstYear])).toEqual([
    ['disk', '12.1666666667', 'EUR', '12.1666666667', null, '146.0000000004'],
    ['dollars', '36.5', 'USD', null, 'Centre them', '438'],
    ['idle', '36.5', 'EUR', '36.5', 'Centre us', '438'],
  ])
  expect(whole).toEqual({
    currency: 'EUR',
    total: '48.6666666667',
    notCounted: [],
    unrated: ['fee-without-use/Testcloud/id-dollars'],
    isBest: true,
  })
  expect(finders.find(({ detector }) => detector === 'idle-gateway')!.lacks).toContain('an inventory of gateways')
  expect(finders.filter(({ lacks }) => lacks === null)).toHaveLength(11)
  expect(said).toContain('2 things are paid by the hour and not used.')
})

it('is for a lead what is theirs', async () => {
  const { opportunities, whole, ledger } = await state({ cookie: 'rain-barrel-person=lead' })
  // nobody of theirs is charged for use: whether a gateway is used at all they cannot tell from their bill
  expect([opportunities, whole.total, ledger]).toEqual([[], '0', []])
})

it('goes by the card that holds, not by one that is announced', async () => {
  // from December the old class is not sold any more, and the new one costs more
  const announced = { ...card, validFrom: '2026-12-01', prices: [hour, gb, { ...anew, tiers: [{ from: '0', price: '0.2' }] }] }
  await server.json('rate-cards', post(announced))
  expect((await state()).whole.total).toBe('48.6666666667')
})

it('acts on nothing that only the bill shows, and says where it is done', async () => {
  for (const way of ['preview', 'approve']) {
    const reply = await server.call(`savings/${way}`, post({ id: FEE }))
    expect([reply.status, ((await reply.json()) as { detail: string }).detail]).toEqual([
      409,
      expect.stringContaining('Do it where it runs'),
    ])
  }
})

it('keeps what is decided, all or none, over a start', async () => {
  const wrong = await decide({ ids: [FEE, 'constructor'], state: 'agreed' })
  expect([wrong.status, ((await wrong.json()) as { detail: string }).detail]).toEqual([
    404,
    'Nothing that can be saved has the id «constructor».',
  ])
  expect(stateOf(await state(), 'idle')).toBe('spotted')
  const unsaid = await decide({ ids: [FEE], state: 'set aside' })
  expect(unsaid.status).toBe(422)
  expect(await unsaid.json()).toMatchObject({ errors: [{ field: 'reason', reason: 'say why it is set aside' }] })

  expect(
    (await decide({ ids: [FEE], state: 'set aside', reason: 'wanted for the trial', lookAgain: '2999-01-01', note: 'asked Ines' })).status,
  ).toBe(200)
  const aside = await state()
  expect(stateOf(aside, 'idle')).toBe('set aside')
  expect(aside.whole.total).toBe('12.1666666667')
  // its day has come: it is spotted again, with all that was said
  await decide({ ids: [FEE], state: 'set aside', reason: 'for a while', lookAgain: '2020-01-01' })
  await decide({ ids: [FEE], due: '2026-12-24', note: 'once more' })
  await server.stop()
  Object.assign(server, await startServer({ folder: server.folder }))
  const again = (await state()).opportunities.find(({ id }) => id === FEE)!
  expect(again.state).toBe('spotted')
  expect(again.decision).toMatchObject({ state: 'set aside', reason: 'for a while', due: '2026-12-24', who: 'Ines Moldal' })
  expect(again.decision!.notes.map(({ text, who }) => [text, who])).toEqual([
    ['asked Ines', 'Ines Moldal'],
    ['once more', 'Ines Moldal'],
  ])
  await decide({ ids: [FEE], state: 'spotted' })
  expect((await state()).opportunities.find(({ id }) => id === FEE)!.decision).toMatchObject({ state: null, reason: null, lookAgain: null })
})

it('shows what other thresholds would find before they are set; refuses what cannot be', async () => {
  const dear = { detector: 'better-class', key: 'saved', subAccount: 'build', value: 50 }
  const preview = thresholdsPreview.parse(await server.json('savings/thresholds/preview', post({ thresholds: [dear] })))
  expect(preview).toMatchObject({
    now: '48.6666666667',
    then: '36.5',
    currency: 'EUR',
    comes: [],
    goes: ['disk would have more for less as «new»'],
  })
  expect((await state()).whole.total).toBe('48.6666666667')
  // another sub account's threshold changes nothing here
  const elsewhere = await server.json<SavingsState>('savings/thresholds', put({ thresholds: [{ ...dear, subAccount: 'live' }] }))
  expect(elsewhere.whole.total).toBe('48.6666666667')
  const set = savingsState.parse(await server.json('savings/thresholds', put({ thresholds: [dear] })))
  expect(set.whole.total).toBe('36.5')
  const finder = set.finders.find(({ detector }) => detector === 'better-class')!
  expect(finder.thresholds).toMatchObject([{ key: 'saved', value: 5, bySubAccount: { build: 50 } }])
  const wrong = await server.call('savings/thresholds', put({ thresholds: [{ ...dear, value: 91 }] }))
  expect([wrong.status, ((await wrong.json()) as { detail: string }).detail]).toEqual([
    422,
    '«the other costs less by at least» is from 0 to 90 %, not 91',
  ])
  await server.json('savings/thresholds', put({ thresholds: [] }))
  expect((await state()).whole.total).toBe('48.6666666667')
})

it('what is said to be done is seen on the bill, day by day; what comes back is noticed', async () => {
  expect((await decide({ ids: [FEE], state: 'done', doneOn: '2026-10-29' })).status).toBe(200)
  const done = await state()
  expect([stateOf(done, 'idle'), done.whole.total]).toEqual(['done', '12.1666666667'])
  expect(done.ledger).toMatchObject([{ resourceName: 'idle', promisedMonthly: '36.5', seenTo: null, seen: null, workings: null }])
  // the next bill: it was charged for one day more, then no more, over eight days
  const next = (name: string, line: typeof hour, quantity: string, cost: string) =>
    daily(name, line, quantity, cost, { from: '2026-10-01', to: '2026-11-01' })
  const until = (to: string) => [
    ...next('busy', hour, '24', '1.2'),
    ...next('busy', gb, '10', '0.4'),
    ...daily('idle', hour, '24', '1.2', { from: '2026-10-01', to, Tags: '{"team":"us"}' }),
  ]
  await deliver(
    server,
    'bill',
    focusCsv([...until('2026-10-30'), ...daily('busy', hour, '24', '1.2', { from: '2026-11-01', to: '2026-11-06' })]),
  )
  const measured = await state()
  // eight days at 1.20 would have been 9.60, and 1.20 was charged
  expect(measured.ledger).toMatchObject([
    {
      ...{ seenTo: '2026-11-05', daysSince: 8, promised: '9.6', seen: '8.4', seenBilled: '8.4' },
      workings: [{ how: 'gone', unitsBefore: '168', costBefore: '8.4', unitsElse: '192', counterfactual: '9.6', actual: '1.2' }],
    },
  ])
  expect(stateOf(measured, 'idle')).toBe('measured')
  // the whole bill, five days against five: 5 × 1.20 saved, and the 5 × 0.40 that passed the other are charged no more
  const bill = async (headers = {}) => billAndSavings.parse(await server.json('savings/bill', { headers }))
  const saved = { kind: 'saved', amount: '-6' }
  expect(await bill()).toEqual({
    ...{ now: { start: '2026-11-01', end: '2026-11-06' }, before: { start: '2026-10-01', end: '2026-10-06' }, behind: 0 },
    changes: [{ currency: 'EUR', before: '14', now: '6', parts: [saved, { kind: 'newAndGone', amount: '-2' }] }],
  })
  // whoever sees only the one sees its last month, October to the 29th, against eleven days of September; the day of the deed was charged
  expect(await bill({ cookie: 'rain-barrel-person=lead' })).toMatchObject({
    now: { start: '2026-10-01', end: '2026-10-30' },
    changes: [{ before: '13.2', now: '34.8', parts: [{ kind: 'otherwise', amount: '21.6' }] }],
  })
  // and then it is there as before
  await deliver(
    server,
    'bill',
    focusCsv([
      ...until('2026-11-01'),
      ...['busy', 'idle'].flatMap(name => daily(name, hour, '24', '1.2', { from: '2026-11-01', to: '2026-11-08' })),
      ...daily('busy', gb, '10', '0.4', { from: '2026-11-01', to: '2026-11-08' }),
    ]),
  )
  expect((await state()).opportunities.find(({ id }) => id === FEE)).toMatchObject({ cameBack: true })
  // then nothing of it is saved any more: seven days cost what they did
  expect((await bill()).changes).toEqual([{ currency: 'EUR', before: '19.6', now: '19.6', parts: [] }])
})

it('what was agreed and is found no more is gone automatically', async () => {
  const disk = `better-class/Testcloud/id-disk/${old.sku}`
  const before = (await state()).opportunities.find(({ id }) => id === disk)
  expect(before).toBeUndefined() // the newest bill has no disk: nobody had decided anything, so it is not spoken of
})
