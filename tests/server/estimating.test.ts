// Versions, patterns, uplifts, exports, links, what was used, and rate cards that come by table or by connection.
import { spawn, type ChildProcess } from 'node:child_process'
import Papa from 'papaparse'
import { unzipSync } from 'fflate'
import ExcelJS from 'exceljs'
import { addDays } from '../../core/time/day'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { estimateSchema, newEstimate, newRow } from '../../core/estimate/estimate'
import type { RateCard } from '../../core/ratecard/rate-card'
import { eq } from 'drizzle-orm'
import { estimateLink, estimateVersion, rateCard } from '../../server/db/schema'
import { findRateCard } from '../../server/stores/rate-cards'
import { listEstimates, mustFindEstimate } from '../../server/stores/estimates'
import { figureText, priceEstimate } from '../../core/estimate/pricing/price-estimate'
import { evaluate } from '../../core/working/working'
import { cardColumns } from '../../core/ratecard/card-columns'
import { cardToTable } from '../../core/ratecard/card-to-table'
import {
  estimateList,
  linkList,
  linkMade,
  patternList,
  savedEstimate,
  sharedDocument,
  upliftList,
  usedLines,
  versionList,
} from '../../shared/contracts/estimates'
import { cardSchedules, rateCardList, skusDescribed } from '../../shared/contracts/reference-data'
import { listLinks, openLink } from '../../server/stores/links'
import { demoEstimates } from '../../demo/estimates'
import { brackwaterCard, brackwaterNextCard, larkfieldCard, pierHouseCard } from '../../demo/rate-cards'
import { demoPatterns, demoUplifts } from '../../demo/reusable'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { pdfText } from '../support/pdf-text'
import { freePort, post, put, remove, startServer, type Running, openKept } from '../support/server'
import { pricesOf } from '../support/test-card'

const nextYear = addDays(new Date().toISOString().slice(0, 10), 365)
let server: Running
let cloud: ChildProcess
beforeAll(async () => {
  const port = await freePort()
  cloud = spawn(process.execPath, ['--import', 'tsx', 'stand-ins/cloud/main.ts'], {
    env: { ...process.env, HOST: '127.0.0.1', PORT: String(port) },
    stdio: 'ignore',
  })
  for (
    let tries = 0;
    tries < 100 &&
    !(await fetch(`http://127.0.0.1:${port}/v1/clock`).then(
      r => r.ok,
      () => false,
    ));
    tries++
  )
    await new Promise(resolve => setTimeout(resolve, 100))
  server = await startServer({ env: { BRACKWATER_URL: `http://127.0.0.1:${port}` } })
})
afterAll(async () => {
  cloud.kill()
  await server.stop()
  remove(server.folder)
})
const as = (name: string) => ({ cookie: `rain-barrel-person=${encodeURIComponent(name)}` })
const quote = demoEstimates.find(d => d.states[0]!.estimate.marginPercent === '18')!
const estimate = estimateSchema.parse({
  ...quote.states[0]!.estimate,
  name: '=HYPERLINK("x")',
  components: quote.states[0]!.estimate.components.map((c, i) => (i ? c : { ...c, part: '@SUM(A1)', note: '-2+3' })),
})
const own = Number(figureText(priceEstimate(estimate, pricesOf(brackwaterCard)).cost.effectiveMonthly))

describe('rate cards', () => {
  it('come as the lines of a CSV file too, refused line by line', async () => {
    const lines = cardToTable(pierHouseCard).map(line => Object.fromEntries(cardColumns.map(c => [c, line[c] ?? ''])))
    expect(await server.json('rate-cards/table', post({ lines }))).toMatchObject({
      provider: 'Pier House DC',
      prices: pierHouseCard.prices.length,
      replaced: false,
    })
    expect(await server.json('rate-cards/Pier%20House%20DC')).toEqual(pierHouseCard)
    const wrong = await server.call(
      'rate-cards/table',
      post({ lines: lines.map(l => (l.meter === 'transfer-out-gb' ? { ...l, price: 'cheap' } : l)) }),
    )
    expect(wrong.status).toBe(422)
    expect(await wrong.json()).toMatchObject({ errors: [{ field: expect.stringMatching(/^line \d+, price$/) }] })
    for (const card of [brackwaterCard, larkfieldCard]) await server.json('rate-cards', post(card))
  })

  it('become a further revision when one of the same day says something else; what was saved keeps its figures', async () => {
    const day = { ...pierHouseCard, validFrom: '2026-05-01' }
    expect(await server.json('rate-cards', post(day))).toMatchObject({ replaced: false, changed: true, revision: 1 })
    expect(await server.json('rate-cards', post(day))).toMatchObject({ replaced: true, changed: false, revision: 1 })
    const id = crypto.randomUUID()
    // 100 GB on the array at 0.068
    const saved = {
      ...newEstimate('on the array', day, 'pier-house'),
      components: [newRow('a', 'p', 'disk', { class: 'array', storageGb: '100' })],
    }
    await server.json(`estimates/${id}`, put({ basedOn: null, estimate: saved }))
    const dearer = {
      ...day,
      prices: day.prices.map(p => (p.meter === 'disk-gb-month' ? { ...p, tiers: [{ from: '0', price: '0.1' }] } : p)),
    }
    expect(await server.json('rate-cards', post(dearer))).toMatchObject({ replaced: true, changed: true, revision: 2 })
    expect(await server.json('rate-cards/Pier%20House%20DC?date=2026-05-01&revision=1')).toEqual(day)
    expect(await server.json('rate-cards/Pier%20House%20DC?date=2026-05-01')).toEqual(dearer)
    expect((await server.call('rate-cards/Pier%20House%20DC?date=2026-05-01&revision=3')).status).toBe(404)
    expect((await server.call('rate-cards/Pier%20House%20DC?date=2026-05-01&revision=9999999999')).status).toBe(422)
    expect(
      rateCardList
        .parse(await server.json('rate-cards'))
        .cards.filter(c => c.validFrom === '2026-05-01')
        .map(c => c.revision),
    ).toEqual([2, 1])
    const total = async () =>
      Papa.parse<string[]>(
        new TextDecoder().decode(
          await (await server.call(`estimates/${id}/export`, post({ format: 'csv', audience: 'own', version: 1 }))).arrayBuffer(),
        ),
      ).data.find(row => row[1] === 'total')![8]
    expect(await total()).toBe('6.8')
    const { estimate: kept } = savedEstimate.parse(await server.json(`estimates/${id}`))
    await server.json(`estimates/${id}`, put({ basedOn: 1, estimate: { ...kept, cards: [{ ...kept.cards[0]!, revision: 2 }] } }))
    const second = await server.call(`estimates/${id}/export`, post({ format: 'csv', audience: 'own', version: 2 }))
    expect(Papa.parse<string[]>(await second.text()).data.find(row => row[1] === 'total')![8]).toBe('10')
  })

  it('say SKU codes in plain words, and what each is charged for', async () => {
    const { skus } = skusDescribed.parse(
      await server.json('rate-cards/describe', post({ skus: ['BW-LOWCOAST-GATEWAYHOUR', 'BW-LOWCOAST-GATEWAYGB', 'NOPE'] })),
    )
    expect(skus).toEqual({
      'BW-LOWCOAST-GATEWAYHOUR': { words: 'Gateways in Low Coast: existing, hours', charged: 'existing' },
      'BW-LOWCOAST-GATEWAYGB': { words: 'Gateways in Low Coast: passed, GB', charged: 'use' },
    })
  })

  it('are fetched from a connection, with what changed said; a second time nothing is new', async () => {
    const first = await server.json<{ said: string }>('connections/brackwater/rate-card', post({}, as('Ines Moldal')))
    expect(first).toMatchObject({ provider: 'Brackwater Cloud', validFrom: '2026-12-01' })
    expect(first.said).toMatch(/72 cheaper/)
    expect(first.said).toMatch(/4 other terms/)
    expect((await server.json<{ said: string }>('connections/brackwater/rate-card', post({}))).said).toContain('nothing new')
    expect(await server.json('rate-cards/Brackwater%20Cloud')).toEqual(brackwaterNextCard)
    expect(await server.json('rate-cards/Brackwater%20Cloud?date=2026-11-30')).toEqual(brackwaterCard)
    const { cards } = rateCardList.parse(await server.json('rate-cards'))
    expect(cards.filter(c => c.provider === 'Brackwater Cloud').map(c => c.validFrom)).toEqual(['2026-12-01', '2025-11-01'])
    await server.json('connections/brackwater/schedule', put({ everyHours: 24 }))
    expect(cardSchedules.parse(await server.json('connections/schedules')).schedules).toMatchObject([
      { connection: 'brackwater', everyHours: 24, lastSaid: expect.stringContaining('nothing new') },
    ])
    expect((await server.call('connections/brackwater/schedule', put({ everyHours: -1 }))).status).toBe(422)
    expect((await server.call('connections/nowhere/rate-card', post({}))).status).toBe(404)
  })
})

describe('the list of estimates', () => {
  it('files, puts away and brings back, beside the versions', async () => {
    const id = crypto.randomUUID()
    await server.json(`estimates/${id}`, put({ basedOn: null, estimate: newEstimate('to be filed', brackwaterCard, 'low-coast') }))
    const of = async () => estimateList.parse(await server.json('estimates')).estimates.find(e => e.id === id)!
    expect(await of()).toMatchObject({ folder: '', putAway: false, version: 1, title: 'to be filed', problem: null })
    await server.json(`estimates/${id}/filing`, put({ folder: ' constructor ', putAway: true }))
    expect(await of()).toMatchObject({ folder: 'constructor', putAway: true, version: 1 })
    await server.json(`estimates/${id}/filing`, put({ folder: 'constructor' }))
    expect(await of()).toMatchObject({ folder: 'constructor', putAway: false })
    expect((await server.call(`estimates/${crypto.randomUUID()}/filing`, put({ folder: 'x' }))).status).toBe(404)
    expect((await server.call(`estimates/${id}/filing`, put({ folder: 'x'.repeat(81) }))).status).toBe(422)
  })
})

describe('estimates', () => {
  const id = crypto.randomUUID()

  it('keep every version, with names, who and when', async () => {
    expect(await server.json(`estimates/${id}`, put({ basedOn: null, estimate, name: 'first sketch' }, as('Ines Moldal')))).toEqual({
      id,
      version: 1,
    })
    expect(await server.json(`estimates/${id}`, put({ basedOn: 1, estimate: { ...estimate, target: '3000' } }, as('Jon Aske')))).toEqual({
      id,
      version: 2,
    })
    await server.json(`estimates/${id}/versions/2`, put({ name: 'with a target' }))
    const { versions } = versionList.parse(await server.json(`estimates/${id}/versions`))
    expect(versions.map(v => [v.version, v.name, v.who])).toEqual([
      [2, 'with a target', 'Jon Aske'],
      [1, 'first sketch', 'Ines Moldal'],
    ])
    expect(savedEstimate.parse(await server.json(`estimates/${id}?version=1`)).estimate).toEqual(estimate)
    expect((await server.call(`estimates/${id}?version=9`)).status).toBe(404)
    expect((await server.call(`estimates/${id}/versions/2`, put({ name: ' ' }))).status).toBe(422)
  })

  it('read what was saved in the first format', async () => {
    const old = crypto.randomUUID()
    const { format: _, cards: __, currency: ___, ...rest } = { ...estimate, format: 'rain-barrel estimate 1' }
    const first = {
      format: 'rain-barrel estimate 1',
      name: rest.name,
      provider: rest.provider,
      rateCardDate: '2025-11-01',
      region: rest.region,
      target: null,
      useFreeAllowance: false,
      discountPercent: '5',
      taxPercent: '0',
      components: rest.components.map(({ note: _n, muted: _m, pattern: _p, ...c }) => c),
      dismissed: [],
    }
    await server.json(`estimates/${old}`, put({ basedOn: null, estimate: first }))
    expect(savedEstimate.parse(await server.json(`estimates/${old}`)).estimate).toMatchObject({
      format: 'rain-barrel estimate 3',
      cards: [{ provider: 'Brackwater Cloud', date: '2025-11-01', revision: 1 }],
      discounts: [{ provider: 'Brackwater Cloud', percent: '5' }],
    })
  })

  const file = async (format: string, audience: string) => {
    const response = await server.call(`estimates/${id}/export`, post({ format, audience, version: 2 }))
    expect(response.status).toBe(200)
    expect(response.headers.get('content-disposition')).toContain(`.${format}`)
    return new Uint8Array(await response.arrayBuffer())
  }
  const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes)
  /** What a customer's copy must not hold: own cost of any row or the whole, terms, margin, notes. */
  const secrets = () => {
    const { rows } = priceEstimate(estimate, pricesOf(brackwaterCard))
    return [
      own.toFixed(2),
      ...rows.map(r => figureText(r.chosen!.effectiveMonthly)).filter(a => a.length > 4),
      'argin',
      'iscount',
      'uplift',
      estimate.note,
      '-2+3',
    ]
  }

  it('leave as CSV with nothing that a spreadsheet takes for a formula', async () => {
    const { data } = Papa.parse<string[]>(text(await file('csv', 'own')).trim())
    expect(data.flat().filter(cell => /^[=+\-@]/.test(cell) && Number.isNaN(Number(cell)))).toEqual([])
    expect(data[1]!.slice(0, 2)).toEqual(["'@SUM(A1)", 'Servers'])
    const total = data.find(line => line[1] === 'total')!
    expect(Number(total[9])).toBeCloseTo((own / 0.82) * 1.21, 6)
  })

  it('leave as XLSX whose cells are formulas, texts neutralised', async () => {
    const book = new ExcelJS.Workbook()
    await book.xlsx.load((await file('xlsx', 'own')).buffer as ArrayBuffer)
    const sheet = book.getWorksheet('Estimate')!
    expect(sheet.getCell('A1').value).toBe('\'=HYPERLINK("x")')
    expect(sheet.getCell('A5').value).toBe("'@SUM(A1)")
    expect(sheet.getCell('H5').value).toMatchObject({ formula: expect.stringMatching(/^'?(Workings|Inputs)'?!B\d+$/) })
    expect(book.worksheets.map(w => w.name)).toEqual(expect.arrayContaining(['Estimate', 'Inputs', 'Workings']))
  })

  it('leave as a PDF', async () => {
    const bytes = await file('pdf', 'own')
    const words = await pdfText(bytes)
    const total = priceEstimate(estimate, pricesOf(brackwaterCard)).total.effectiveMonthly
    expect(words).toContain(
      `${evaluate(total)
        .toFixed(2)
        .replace(/\B(?=(\d{3})+\.)/g, ',')} effective monthly, EUR`,
    )
    expect(words).toContain('How the effective monthly amount of each row was made')
    // nobody was chosen whom it is prepared by
    expect(words).not.toMatch(/prepared on [^·]* by/)
  })

  it("a customer's files hold no own cost, margin nor terms, down to the bytes", async () => {
    for (const secret of secrets()) expect(text(await file('csv', 'customer')).includes(secret), secret).toBe(false)
    const parts = Object.entries(unzipSync(await file('xlsx', 'customer')))
      .filter(([name]) => name.endsWith('.xml'))
      .map(([name, bytes]) => `${name} ${text(bytes).replace(/<[^>]*>/g, ' ')}`)
    for (const secret of secrets())
      expect(
        parts.filter(p => p.includes(secret)),
        secret,
      ).toEqual([])
    expect(parts.some(p => p.includes('Workings'))).toBe(false)
    const words = await pdfText(await file('pdf', 'customer'))
    for (const secret of secrets()) expect(words.includes(secret), secret).toBe(false)
    expect(words).not.toContain('Workings')
  })

  it('open by a link for anyone, until it expires or is taken back; it shows the version it was made of', async () => {
    const made = linkMade.parse(
      await server.json(`estimates/${id}/links`, post({ version: 1, audience: 'customer', expiresOn: nextYear }, as('Ines Moldal'))),
    )
    const secret = made.path.split('/').at(-1)!
    expect(secret).toMatch(/^[\w-]{43}$/)
    const shown = sharedDocument.parse(await server.json(`shared/${secret}`))
    expect(shown.document).toMatchObject({
      audience: 'customer',
      version: null,
      preparedBy: '',
      target: null,
      workings: [],
      dismissed: [],
      assumptions: [],
      columns: [],
    })
    for (const hidden of secrets()) expect(JSON.stringify(shown).includes(hidden), hidden).toBe(false)
    // saving on changes nothing of what it shows
    await server.json(`estimates/${id}`, put({ basedOn: 2, estimate: { ...estimate, components: [] } }))
    expect(sharedDocument.parse(await server.json(`shared/${secret}`)).document.parts.length).toBeGreaterThan(0)
    expect((await server.call(`shared/${secret.slice(0, -1)}x`)).status).toBe(404)
    expect(linkList.parse(await server.json(`estimates/${id}/links`)).links).toMatchObject([
      { id: made.id, version: 1, audience: 'customer', revokedAt: null, who: 'Ines Moldal' },
    ])
    await server.json(`links/${made.id}`, { method: 'DELETE' })
    const closed = await server.call(`shared/${secret}`)
    expect(closed.status).toBe(404)
    expect((await server.call(`estimates/${id}/links`, post({ version: 1, audience: 'own', expiresOn: '2020-01-01' }))).status).toBe(422)
    const tooLong = { version: 1, audience: 'own', expiresOn: addDays(new Date().toISOString().slice(0, 10), 731) }
    expect((await server.call(`estimates/${id}/links`, post(tooLong))).status).toBe(422)
    expect((await server.call(`links/${crypto.randomUUID()}`, { method: 'DELETE' })).status).toBe(404)
  })
})

it('keeps patterns and uplifts with who made them, and refuses what is none', async () => {
  for (const pattern of demoPatterns) await server.json('patterns', post(pattern, as('Ines Moldal')))
  expect(patternList.parse(await server.json('patterns')).patterns.map(p => p.who)).toEqual(Array(5).fill('Ines Moldal'))
  expect((await server.call('patterns', post({ ...demoPatterns[0], components: [] }))).status).toBe(422)
  for (const set of demoUplifts) await server.json('uplifts', post(set, as('Siri Vaage')))
  await server.json('uplifts', post({ ...demoUplifts[0], name: 'renamed' }, as('Jon Aske')))
  const { uplifts } = upliftList.parse(await server.json('uplifts'))
  expect(uplifts.map(u => [u.name, u.who])).toEqual(
    expect.arrayContaining([
      ['renamed', 'Jon Aske'],
      ['Office desk', 'Siri Vaage'],
    ]),
  )
  expect(uplifts.length).toBe(demoUplifts.length)
  await server.json(`uplifts/${demoUplifts[0]!.id}`, { method: 'DELETE' })
  expect((await server.call(`uplifts/${demoUplifts[0]!.id}`, { method: 'DELETE' })).status).toBe(404)
  expect((await server.call('uplifts', post({ ...demoUplifts[0], charges: [] }))).status).toBe(422)
})

it('tells what was used in a month: quantities by resource and SKU, corrections and credits apart', async () => {
  await deliver(
    server,
    'bill',
    focusCsv([
      charge({ SkuId: 'S1', PricingQuantity: '10', ListCost: '5', ResourceId: 'r1' }),
      charge({ SkuId: 'S1', PricingQuantity: '2.5', ListCost: '1.25', ResourceId: 'r1' }),
      charge({ SkuId: 'S1', PricingQuantity: '4', ListCost: '2', ResourceId: 'r2', SubAccountName: 'elsewhere' }),
      charge({ SkuId: 'S1', PricingQuantity: '-3', ListCost: '-1', ResourceId: 'r1', ChargeClass: 'Correction' }),
      charge({
        ChargeCategory: 'Credit',
        ChargeFrequency: 'One-Time',
        SkuId: '',
        SkuPriceId: '',
        PricingQuantity: '',
        PricingUnit: '',
        ListUnitPrice: '',
        ContractedUnitPrice: '',
        ConsumedQuantity: '',
        ConsumedUnit: '',
        PricingCategory: '',
        BilledCost: '-1',
        EffectiveCost: '-1',
        ListCost: '-1',
        ContractedCost: '-1',
      }),
    ]),
  )
  const used = usedLines.parse(await server.json('spend/used', post({ month: '2026-10', leaveOut: { SubAccountName: ['elsewhere'] } })))
  expect(used.lines.map(l => [l.sku, l.resource, l.quantity])).toEqual([['S1', 'r1', '12.5']])
  expect(used.listCost).toEqual([{ currency: 'EUR', amount: '6.25' }])
  expect(used.notUsage).toBe(2)
  expect((await server.call('spend/used', post({ month: '2026-13' }))).status).toBe(422)
  expect((await server.call('spend/used', post({ month: '2026-10', keep: { Nonsense: ['x'] } }))).status).toBe(422)
})

it('a link opens on its last day and not on the day after', async () => {
  const id = crypto.randomUUID()
  await server.json(`estimates/${id}`, put({ basedOn: null, estimate }))
  const { path } = linkMade.parse(
    await server.json(`estimates/${id}/links`, post({ version: 1, audience: 'customer', expiresOn: nextYear })),
  )
  await server.stop()
  const { db, close } = await openKept(server.folder)
  const secret = path.split('/').at(-1)!
  await expect(openLink(db, secret, nextYear)).resolves.toMatchObject({ expiresOn: nextYear })
  await expect(openLink(db, secret, addDays(nextYear, 1))).rejects.toMatchObject({ kind: 'not found' })
  // one that was made for longer, before there was a limit, is cut to two years after it was made
  await db.update(estimateLink).set({ expiresOn: '2099-01-01', madeAt: '2026-03-01T12:00:00Z' }).where(eq(estimateLink.estimateId, id))
  await expect(openLink(db, secret, '2028-02-29')).resolves.toMatchObject({ expiresOn: '2028-02-29' })
  await expect(openLink(db, secret, '2028-03-01')).rejects.toMatchObject({ kind: 'not found' })
  // a customer's link of before the list of what may go in: what it shows is made anew, and what cannot be is closed and named
  const [kept] = await db.select().from(estimateLink).where(eq(estimateLink.estimateId, id))
  await db
    .update(estimateLink)
    .set({
      body: { ...kept!.body, note: 'our cost is 12', dismissed: [{ title: 'x', reason: 'too dear for us' }], preparedBy: 'Ines Moldal' },
    })
    .where(eq(estimateLink.id, kept!.id))
  expect(JSON.stringify(await openLink(db, secret, '2028-02-29'))).not.toMatch(/our cost|too dear|Ines/)
  expect((await listLinks(db, id))[0]!.opens).toBe(true)
  await db
    .update(estimateLink)
    .set({ body: { ...kept!.body, summary: [{ label: 'own cost', figures: kept!.body.summary[0]!.figures }] } })
    .where(eq(estimateLink.id, kept!.id))
  await expect(openLink(db, secret, '2028-02-29')).rejects.toMatchObject({ kind: 'not found' })
  expect((await listLinks(db, id))[0]!.opens).toBe(false)
  // an estimate that cannot be read says why; the others stand
  await db
    .insert(estimateVersion)
    .values({ estimateId: 'bad', version: 1, body: { ...estimate, name: 'bad', marginPercent: '100.0' }, who: 'x' })
  const list = await listEstimates(db)
  expect(list.find(e => e.id === 'bad')).toMatchObject({ title: 'bad', estimate: null, problem: 'marginPercent: below 100' })
  expect(list.filter(e => e.estimate !== null).length).toBe(list.length - 1)
  await expect(mustFindEstimate(db, 'bad')).rejects.toMatchObject({ kind: 'conflict' })
  // a card kept with the first words for ways to pay is read by those of today
  const earlier = {
    ...brackwaterCard,
    provider: 'Earlier',
    prices: brackwaterCard.prices
      .slice(0, 1)
      .map(p => ({
        ...p,
        commitments: p.commitments!.map(({ paid, ...c }) => ({
          ...c,
          upfront: { 'paid monthly': 'none', 'part in advance': 'part', 'all in advance': 'all' }[paid],
        })),
      })),
  }
  await db.insert(rateCard).values({ provider: 'Earlier', validFrom: '2025-01-01', body: earlier as unknown as RateCard, who: 'x' })
  expect((await findRateCard(db, 'Earlier'))!.prices[0]!.commitments).toEqual(brackwaterCard.prices[0]!.commitments)
  await close()
})
