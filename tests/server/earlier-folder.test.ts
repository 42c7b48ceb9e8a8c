// A data folder of before: its estimates, cards and links are taken over, and what cannot be priced says why without taking the others
// along.
import { createHash } from 'node:crypto'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { brackwaterCard } from '../../demo/rate-cards'
import { openAsBefore } from '../support/kept'
import { post, put, remove, startServer, type Running } from '../support/server'

/** The last change of the database before estimates were filed and cards had revisions. */
const BEFORE = 5
const day = brackwaterCard.validFrom
const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-'))
const secret = 'a'.repeat(43)
let server: Running

/** The card as it was written then: another word for how a commitment is paid. */
const earlierCard = {
  ...brackwaterCard,
  prices: brackwaterCard.prices.map(({ commitments, ...line }) =>
    commitments
      ? {
          ...line,
          commitments: commitments.map(({ paid, ...c }) => ({
            ...c,
            upfront: { 'paid monthly': 'none', 'part in advance': 'part', 'all in advance': 'all' }[paid],
          })),
        }
      : line,
  ),
}
const row = (id: string, kind: string, inputs: Record<string, string>, confirmed = Object.keys(inputs)) => ({
  id,
  part: 'p',
  kind,
  inputs,
  confirmed,
  note: '',
  muted: false,
  pattern: null,
})
const earlier = (name: string, components: unknown[], more: object = {}) => ({
  format: 'rain-barrel estimate 2',
  name,
  note: '',
  currency: 'EUR',
  provider: brackwaterCard.provider,
  region: 'low-coast',
  cards: [{ provider: brackwaterCard.provider, date: day }],
  rates: [],
  month: null,
  termYears: null,
  target: null,
  useFreeAllowance: false,
  discounts: [],
  funding: [],
  marginPercent: '0',
  taxPercent: '0',
  components,
  scenarios: [],
  dismissed: [],
  seed: 1,
  ...more,
})
const fleet = earlier('Desktops of before', [
  row('f', 'desktop-fleet', { size: 'otter-8x32', shape: 'pooled', users: '120', heaviness: 'medium', pays: '1 year, none upfront' }),
  row('s', 'server', { size: 'otter-4x16', count: '2', hoursPerMonth: '730', pays: '3 years, all upfront' }),
])
const quote = earlier(
  'Quote of before',
  [row('a', 'disk', { class: 'plain', storageGb: '1000' }), row('b', 'free-form', { what: 'pallets', amount: '1234' }, ['what'])],
  { marginPercent: '20', note: 'MARKER note', dismissed: [{ blindSpot: 'no-support', reason: 'MARKER reason' }] },
)
const amounts = (month: string, times12: string) => ({
  upfront: '0',
  monthly: month,
  effectiveMonthly: month,
  firstYear: times12,
  wholeTerm: times12,
})
/** A customer's copy as it was kept: with who prepared it, a reason, and an amount of own cost among the assumptions. */
const keptCopy = {
  audience: 'customer',
  title: 'Quote of before',
  note: '',
  version: 1,
  preparedOn: '2026-11-24',
  preparedBy: 'MARKER person',
  currency: 'EUR',
  cards: [{ provider: 'Brackwater Cloud', date: day }],
  place: 'low-coast, Brackwater Cloud',
  month: 'month of 730 hours',
  termYears: 1,
  target: null,
  parts: [
    {
      name: 'p',
      figures: amounts('1596.5', '19158'),
      rows: [
        {
          id: 'a',
          label: 'Disks',
          details: 'plain · size of each 1 000 GB · count 1',
          where: 'low-coast, Brackwater Cloud',
          way: '',
          figures: amounts('54', '648'),
          note: '',
          muted: false,
          problem: null,
        },
        {
          id: 'b',
          label: 'Free-form line',
          details: 'pallets · a month',
          where: '',
          way: '',
          figures: amounts('1542.5', '18510'),
          note: '',
          muted: false,
          problem: null,
        },
      ],
    },
  ],
  summary: [{ label: 'total', figures: amounts('1596.5', '19158') }],
  scenarios: [],
  assumptions: [{ label: 'Free-form line, amount', value: '1234', effect: null }],
  dismissed: [{ title: 'No support plan', reason: 'MARKER reason' }],
  ranges: null,
  workings: [],
}

beforeAll(async () => {
  const database = await openAsBefore(folder, BEFORE)
  await database.query('INSERT INTO rate_card (provider, valid_from, body, who) VALUES ($1, $2, $3, $4)', [
    brackwaterCard.provider,
    day,
    JSON.stringify(earlierCard),
    'Ines Moldal',
  ])
  for (const [id, body] of Object.entries({ fleet, quote, blank: { ...quote, name: 'Margin of before', marginPercent: '100.0' } })) {
    await database.query('INSERT INTO estimate_version (estimate_id, version, body, who) VALUES ($1, 1, $2, $3)', [
      `00000000-0000-4000-8000-00000000${{ fleet: '0001', quote: '0002', blank: '0003' }[id]}`,
      JSON.stringify(body),
      'Ines Moldal',
    ])
  }
  await database.query(
    'INSERT INTO estimate_link (id, secret_hash, estimate_id, version, audience, body, expires_on, who) VALUES ($1, $2, $3, 1, $4, $5, $6, $7)',
    [
      'link',
      createHash('sha256').update(secret).digest('hex'),
      '00000000-0000-4000-8000-000000000002',
      'customer',
      JSON.stringify(keptCopy),
      '2099-01-01',
      'Ines Moldal',
    ],
  )
  await database.close()
  server = await startServer({ folder })
}, 60_000)
afterAll(async () => {
  await server.stop()
  remove(folder)
})

const idOf = (n: number) => `00000000-0000-4000-8000-00000000000${n}`

it('lists every estimate; one whose margin no price can have says so', async () => {
  const { estimates } = await server.json<{ estimates: { id: string; title: string; estimate: unknown; unreadable?: string | null }[] }>(
    'estimates',
  )
  expect(estimates.map(e => e.title).sort()).toEqual(['Desktops of before', 'Margin of before', 'Quote of before'])
  const blank = estimates.find(e => e.title === 'Margin of before')!
  expect(blank.estimate).toBeNull()
  expect(JSON.stringify(blank)).toMatch(/margin/i)
})

it('prices what was saved as it was, in the words of now', async () => {
  const csv = await (await server.call(`estimates/${idOf(1)}/export`, post({ format: 'csv', audience: 'own', version: 1 }))).text()
  const price = (meter: string, variant: string | null) =>
    brackwaterCard.prices.find(p => p.meter === meter && p.variant === variant && p.region === 'low-coast')!
  const upfront =
    Number(price('server-hour', 'otter-4x16').commitments!.find(c => c.years === 3 && c.paid === 'all in advance')!.upfrontPrice) * 2
  const server3 = csv.split('\r\n').find(line => line.includes('Servers'))!
  expect(server3).toContain('"3 years, all in advance"')
  expect(server3).toContain(`,${upfront},`)
  expect(csv).toContain('shared machines')
  expect(csv).toMatch(/"1 year, paid monthly/)
  expect(csv).not.toMatch(/upfront"|pooled|medium/)
})

it("shows a customer's copy of before by the list of now", async () => {
  const shown = JSON.stringify(await server.json(`shared/${secret}`))
  expect(shown).toContain('1542.5')
  for (const hidden of ['MARKER', '1234', 'Brackwater']) expect(shown.includes(hidden), hidden).toBe(false)
})

it('keeps the card of before as revision 1: another one of the day is revision 2', async () => {
  const dearer = {
    ...brackwaterCard,
    prices: brackwaterCard.prices.map(line =>
      line.meter === 'disk-gb-month' && line.variant === 'plain' ? { ...line, tiers: [{ from: '0', price: '1' }] } : line,
    ),
  }
  await server.json('rate-cards', post(dearer))
  const total = async (id: string) =>
    (await (await server.call(`estimates/${id}/export`, post({ format: 'csv', audience: 'own', version: 1 }))).text())
      .split('\r\n')
      .find(line => line.includes('Disks'))!
  expect(await total(idOf(2))).toContain(',43.2,')
  const { estimate } = await server.json<{ estimate: { cards: { revision: number }[] } }>(`estimates/${idOf(2)}`)
  expect(estimate.cards[0]!.revision).toBe(1)
  await server.json(`estimates/${idOf(2)}`, put({ basedOn: 1, estimate: { ...estimate, cards: [{ ...estimate.cards[0], revision: 2 }] } }))
  expect(
    (await (await server.call(`estimates/${idOf(2)}/export`, post({ format: 'csv', audience: 'own', version: 2 }))).text())
      .split('\r\n')
      .find(line => line.includes('Disks')),
  ).toContain(',1000,')
})
