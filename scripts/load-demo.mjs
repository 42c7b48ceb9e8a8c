// Loads the demo's files through the same interface a person's files go through. What is loaded already is left alone.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import Papa from 'papaparse'

async function call(url, init) {
  const response = await fetch(url, init)
  const reply = await response.json()
  if (!response.ok) throw new Error(`${url}: ${reply.detail ?? response.status}`)
  return reply
}

/**
 * @param base address of the running server
 * @param folder where `demo/write.ts` wrote its files
 * @param say takes a line of progress
 */
export async function loadDemo(base, folder, say = () => {}) {
  const json = name => ({ method: 'POST', headers: { 'content-type': 'application/json' }, body: readFileSync(join(folder, name)) })
  const { people } = await call(`${base}/api/v1/people`)
  const cookie = { cookie: `rain-barrel-person=${encodeURIComponent('Ines Moldal')}` }
  const as = init => ({ ...init, headers: { ...init.headers, ...cookie } })
  const { cards } = await call(`${base}/api/v1/rate-cards`)
  if (people.length === 0) await call(`${base}/api/v1/organisation`, as(json('cost-centres.json')))
  if (cards.length === 0)
    for (const name of ['rate-card-brackwater.json', 'rate-card-larkfield.json', 'rate-card-pier-house.json'])
      await call(`${base}/api/v1/rate-cards`, as(json(name)))

  const read = name => JSON.parse(readFileSync(join(folder, name), 'utf8'))
  const send = (method, path, body, who = 'Ines Moldal') =>
    call(`${base}/api/v1/${path}`, {
      method,
      headers: { 'content-type': 'application/json', cookie: `rain-barrel-person=${encodeURIComponent(who)}` },
      body: JSON.stringify(body),
    })
  const [{ uplifts }, { patterns }, { estimates }] = await Promise.all(
    ['uplifts', 'patterns', 'estimates'].map(list => call(`${base}/api/v1/${list}`)),
  )
  if (uplifts.length === 0) for (const set of read('uplifts.json')) await send('POST', 'uplifts', set)
  if (patterns.length === 0) for (const pattern of read('patterns.json')) await send('POST', 'patterns', pattern)
  if (estimates.length === 0) {
    for (const { id, who, states } of read('estimates.json')) {
      for (const [basedOn, { name, estimate }] of states.entries())
        await send('PUT', `estimates/${id}`, { basedOn: basedOn || null, estimate, name }, who)
    }
  }

  const table = name => ({ lines: Papa.parse(readFileSync(join(folder, name), 'utf8'), { header: true, skipEmptyLines: true }).data })
  const [{ rates }, { invoices }, { sentences }, { lookups }, reference] = await Promise.all(
    ['rates', 'invoices', 'sentences', 'lookups', 'spend/reference'].map(path => call(`${base}/api/v1/${path}`)),
  )
  if (!reference.savedAt) {
    await send('PUT', 'spend/account-tree', read('account-tree.json'))
    await send('PUT', 'spend/report-currency', { reportCurrency: 'EUR' }, 'Arvid Nes')
    await send('PUT', 'spend/required-tags', read('required-tags.json'), 'Arvid Nes')
  }
  if (lookups.length === 0) await send('PUT', 'lookups/ledger', read('lookup-ledger.json'), 'Arvid Nes')
  if (rates.length === 0) await send('POST', 'rates/table', table('exchange-rates.csv'), 'Arvid Nes')
  if (invoices.length === 0) await send('POST', 'invoices/table', table('invoices-2026-10.csv'), 'Arvid Nes')
  if (sentences.length === 0)
    for (const { id, query, ...sentence } of read('sentences.json'))
      await send('PUT', `sentences/${id}`, { ...sentence, shared: true, body: { query } })

  const { sources } = await call(`${base}/api/v1/sources`)
  const loaded = new Set(
    sources.flatMap(source => source.periods.map(period => `${source.source} ${period.billingPeriodStart.slice(0, 7)}`)),
  )
  const missing = JSON.parse(readFileSync(join(folder, 'deliveries.json'), 'utf8')).filter(
    ({ source, month }) => !loaded.has(`${source} ${month}`),
  )
  // all are sent at once: the next is read while the one before is swapped in
  const sent = []
  for (const { source, file } of missing)
    sent.push(
      (
        await call(
          `${base}/api/v1/imports?${new URLSearchParams({ source, file })}`,
          as({ method: 'POST', body: readFileSync(join(folder, file)) }),
        )
      ).id,
    )
  const loading = async (id, file) => {
    for (;;) {
      const status = await call(`${base}/api/v1/imports/${id}`)
      if (status.state === 'loaded') return
      if (status.state === 'refused' || status.state === 'stopped')
        throw new Error(`${file} was ${status.state}: ${status.message ?? JSON.stringify(status.errors[0])}`)
      await new Promise(resolve => setTimeout(resolve, 40))
    }
  }
  let charges = 0
  for (const [index, { file, rows }] of missing.entries()) {
    await loading(sent[index], file)
    charges += rows
    if (rows > 1000) say(`${index + 1} of ${missing.length} files, ${charges} charges loaded`)
  }

  // what the register tells is there before October is closed
  const { jobs } = await call(`${base}/api/v1/jobs`, as({}))
  const register = jobs.find(({ kind, doneAt }) => kind === 'register' && !doneAt)
  if (register) {
    await send('POST', `jobs/${register.id}/run`)
    for (let tries = 0; tries < 100; tries++) {
      const { measures } = await call(`${base}/api/v1/measures`, as({}))
      if (measures.length) break
      await new Promise(resolve => setTimeout(resolve, 100))
    }
  }

  const { orders } = await call(`${base}/api/v1/standing-orders`, as({}))
  if (orders.length === 0) for (const order of read('standing-orders.json')) await send('POST', 'standing-orders', order)

  // October is closed; then its vendor corrects it
  const { closed } = await call(`${base}/api/v1/allocation/closings`)
  const late = read('late-correction.json')
  const isOver = new Date().toISOString().slice(0, 7) > late.month
  if (closed.length || !isOver) return
  const asked = { month: late.month, measure: 'effectiveCost' }
  // as it is looked at: what was loaded a moment ago may not be seen yet
  for (let tries = 0; ; tries++) {
    const { revision, version, basis } = await call(`${base}/api/v1/allocation/settlement?${new URLSearchParams(asked)}`, as({}))
    try {
      await send('POST', 'allocation/closings', { ...asked, revision, version, basis }, 'Arvid Nes')
      break
    } catch (error) {
      if (tries === 20) throw error
      await new Promise(resolve => setTimeout(resolve, 200))
    }
  }
  // a team is split off in November, and pools serve each other: October is left as it is
  await send('PUT', 'allocation/plan', { basedOn: 1, plan: read('later-plan.json'), leaveClosed: true }, 'Arvid Nes')
  const { id } = await call(
    `${base}/api/v1/imports?${new URLSearchParams({ source: late.source, file: late.file })}`,
    as({ method: 'POST', body: readFileSync(join(folder, late.file)) }),
  )
  await loading(id, late.file)
}
