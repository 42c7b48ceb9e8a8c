// Lists of savings: one for each owner, mailed once, opened and answered by link, as a file.
import type { AddressInfo } from 'node:net'
import { SMTPServer } from 'smtp-server'
import { simpleParser, type ParsedMail } from 'mailparser'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { listLink, savingsLists, sharedSavings } from '../../shared/contracts/savings-lists'
import { savingsState } from '../../shared/contracts/savings'
import { cardOf, priceLine } from '../support/daily-charges'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { pdfText } from '../support/pdf-text'
import { post, remove, startServer, type Running } from '../support/server'
import { addDays } from '../../core/time/day'

const taken: ParsedMail[] = []
let refuses = ''
const smtp = new SMTPServer({
  disabledCommands: ['AUTH', 'STARTTLS'],
  onRcptTo: ({ address }, _session, done) =>
    done(address === refuses ? Object.assign(new Error('no such mailbox'), { responseCode: 550 }) : null),
  onData(stream, _session, done) {
    void simpleParser(stream).then(mail => {
      taken.push(mail)
      done()
    })
  },
})
let server: Running

const hour = priceLine('gateway-hour', null, '0.05')
const gb = priceLine('gateway-gb', null, '0.04')
const daily = (name: string, team: string, line: typeof hour, quantity: string, cost: string) =>
  Array.from({ length: 31 }, (_, i) => {
    const day = addDays('2026-10-01', i)
    return charge({
      ...{ ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z` },
      ...{ ResourceId: `id-${name}`, ResourceName: name, SkuId: line.sku, SkuPriceId: `${line.sku}/1`, ServiceName: line.service },
      ...{ PricingUnit: line.unit, PricingQuantity: quantity, ConsumedUnit: line.unit, ConsumedQuantity: quantity },
      ...{ Tags: JSON.stringify({ team }), BilledCost: cost },
    })
  })
const idOf = (name: string) => `fee-without-use/Testcloud/id-${name}`
const all = ['one', 'two', 'three', 'four', 'nobodys'].map(idOf)
const ines = { cookie: 'rain-barrel-person=ines' }
const lists = async (headers = {}) => savingsLists.parse(await server.json('savings/lists', { headers }))
const stateOf = async (name: string) => savingsState.parse(await server.json('savings')).opportunities.find(one => one.id === idOf(name))!

beforeAll(async () => {
  await new Promise<void>(resolve => smtp.listen(0, '127.0.0.1', resolve))
  const { port } = smtp.server.address() as AddressInfo
  server = await startServer({ env: { RAIN_BARREL_SMTP: `smtp://127.0.0.1:${port}`, RAIN_BARREL_URL: 'https://barrel.example' } })
  const centre = (id: string, parent: string | null, owner: string | null) => ({ id, name: `Centre ${id}`, parent, owner })
  const person = (id: string, mail: string | null, bound: string[] | null = null) => ({ id, name: `The ${id}`, role: 'lead', mail, bound })
  const people = [
    person('ines', null),
    person('arvid', 'arvid@skerry.example'),
    person('petra', 'petra@skerry.example', ['deck']),
    person('bram', null),
  ]
  const centres = [
    centre('root', null, null),
    centre('yard', 'root', 'arvid'),
    centre('deck', 'root', 'petra'),
    centre('pier', 'root', 'bram'),
    centre('attic', 'root', null),
  ]
  const rules = ['yard', 'deck', 'pier', 'attic'].map(id => ({ id, conditions: [{ dimension: 'Tags/team', values: [id] }], target: id }))
  await server.json('organisation', post({ people, plan: { centres, pools: [], rules } }))
  await server.json('rate-cards', post(cardOf([hour, gb], { provider: 'Testcloud', regions: [{ id: 'here', name: 'Here' }] })))
  const idle = (name: string, team: string) => daily(name, team, hour, '24', '1.2')
  const bill = [
    ...idle('busy', 'deck'),
    ...daily('busy', 'deck', gb, '10', '0.4'),
    ...[...idle('one', 'yard'), ...idle('two', 'yard'), ...idle('three', 'deck'), ...idle('four', 'pier'), ...idle('nobodys', 'attic')],
  ]
  expect(await deliver(server, 'bill', focusCsv(bill))).toMatchObject({ state: 'loaded' })
})
afterAll(async () => {
  await server.stop()
  remove(server.folder)
  await new Promise<void>(resolve => smtp.close(resolve))
})

/** Waits until no mail is under way. */
async function settled() {
  for (;;) {
    const { jobs } = await server.json<{ jobs: { kind: string }[] }>('jobs')
    if (!jobs.some(({ kind }) => kind === 'savings-list-mail')) return lists()
    await new Promise(resolve => setTimeout(resolve, 50))
  }
}
let path = ''

it('makes a list for each owner and mails it once; says who has no address, whom it did not reach, and what nobody owns', async () => {
  refuses = 'petra@skerry.example'
  const made = savingsLists.parse(
    await server.json('savings/lists', post({ ids: all, message: 'Before the winter, please.', mail: true }, ines)),
  )
  expect(
    made.lists.map(({ person, items, saves, madeBy }) => [person, items.map(({ resourceName }) => resourceName), saves, madeBy]),
  ).toEqual([
    ['The arvid', ['one', 'two'], [{ currency: 'EUR', amount: '73' }], 'The ines'],
    ['The petra', ['three'], [{ currency: 'EUR', amount: '36.5' }], 'The ines'],
    ['The bram', ['four'], [{ currency: 'EUR', amount: '36.5' }], 'The ines'],
  ])
  expect(made.nobody).toEqual([idOf('nobodys')])
  const became = await settled()
  const of = (name: string) => became.lists.find(({ person }) => person === name)!
  expect([of('The arvid'), of('The petra'), of('The bram')].map(({ mailState, mailSaid }) => [mailState, mailSaid])).toEqual([
    ['sent', 'sent to arvid@skerry.example'],
    ['failed', expect.stringContaining('no such mailbox')],
    ['failed', 'They have no address.'],
  ])
  expect(taken).toHaveLength(1)
  const [{ text, subject }] = taken as [ParsedMail]
  expect(subject).toBe('What could be saved: 2 entries')
  expect(text).toContain('one is paid for and not used (live): 36.50 EUR a month')
  expect(text).toContain('In all 73.00 EUR a month.')
  expect(text).toContain('Before the winter, please.')
  path = new URL(/https:\/\/barrel\.example\/list\/\S+/.exec(text!)![0]).pathname.slice('/list/'.length)
})

it('opens by its link only, and takes answers one by one: a refusal needs a reason', async () => {
  const shown = sharedSavings.parse(await server.json(`shared-savings/${path}`))
  expect([shown.person, shown.items.map(({ title }) => title)]).toEqual([
    'The arvid',
    ['one is paid for and not used', 'two is paid for and not used'],
  ])
  expect(JSON.stringify(shown)).not.toContain('three')
  expect((await server.call('shared-savings/guess')).status).toBe(404)
  const answer = (body: object) => server.call(`shared-savings/${path}/answers`, post(body))
  const unsaid = await answer({ id: idOf('one'), answer: 'refused' })
  expect([unsaid.status, await unsaid.json()]).toEqual([
    422,
    expect.objectContaining({ errors: [{ field: 'reason', reason: 'say why, so that nobody asks again' }] }),
  ])
  expect((await answer({ id: idOf('three'), answer: 'agreed' })).status).toBe(404)
  expect((await stateOf('three')).state).toBe('spotted')

  expect((await answer({ id: idOf('one'), answer: 'refused', reason: 'the drill in May needs it' })).status).toBe(200)
  expect((await answer({ id: idOf('two'), answer: 'agreed' })).status).toBe(200)
  expect(await stateOf('one')).toMatchObject({ state: 'set aside', decision: { reason: 'the drill in May needs it', who: 'The arvid' } })
  expect(await stateOf('two')).toMatchObject({ state: 'agreed', decision: { who: 'The arvid' } })
  // the last answer counts
  await answer({ id: idOf('one'), answer: 'agreed' })
  expect((await stateOf('one')).state).toBe('agreed')
  const [list] = (await lists()).lists.filter(({ person }) => person === 'The arvid')
  expect(list!.items.map(({ answered }) => answered?.answer)).toEqual(['agreed', 'agreed'])
  // what is done meanwhile is not undone by a late answer
  await server.json('savings/decisions', post({ ids: [idOf('two')], state: 'done', doneOn: '2026-10-31' }))
  await answer({ id: idOf('two'), answer: 'refused', reason: 'too late' })
  expect((await stateOf('two')).decision!.state).toBe('done')
})

it('is opened from anywhere by its secret; nothing else is', async () => {
  const elsewhere = (method: string, way: string) =>
    fetch(`${server.base}/api/v1/${way}`, {
      method,
      headers: { host: 'barrel.example', 'content-type': 'application/json' },
      ...(method === 'POST' && { body: '{}' }),
    })
  // this client cannot name another host: the name is refused by what it is called through
  expect((await elsewhere('GET', `shared-savings/${path}`)).status).toBe(200)
  expect(
    (await fetch(`${server.base}/api/v1/shared-savings/${path}/answers`, { method: 'POST', headers: { 'sec-fetch-site': 'cross-site' } }))
      .status,
  ).toBe(403)
})

it('is taken back: its link opens nothing, another can be made only before', async () => {
  const petra = (await lists()).lists.find(({ person }) => person === 'The petra')!
  const { path: link } = listLink.parse(await server.json(`savings/lists/${petra.id}/link`, post({})))
  const secret = link.slice('/list/'.length)
  expect(sharedSavings.parse(await server.json(`shared-savings/${secret}`)).items).toHaveLength(1)
  expect((await server.call(`savings/lists/${petra.id}`, { ...post({}), method: 'DELETE' })).status).toBe(200)
  expect((await server.call(`shared-savings/${secret}`)).status).toBe(404)
  expect((await server.call(`savings/lists/${petra.id}/link`, post({}))).status).toBe(409)
  expect((await server.call('savings/lists/00000000-0000-4000-8000-000000000000/link', post({}))).status).toBe(404)
  expect((await server.call('savings/lists/constructor/link', post({}))).status).toBe(422)
})

it('is for whoever sees a part of the company what they made themselves', async () => {
  const lead = { cookie: 'rain-barrel-person=petra' }
  expect((await lists(lead)).lists).toEqual([])
  expect((await server.call('savings/lists', post({ ids: [idOf('one')], mail: false }, lead))).status).toBe(404)
  const others = (await lists()).lists[0]!
  expect((await server.call(`savings/lists/${others.id}/link`, post({}, lead))).status).toBe(404)
})

it('leaves as a file with what is not counted twice; names that are none are refused', async () => {
  const reply = await server.call('savings/file', post({ ids: [idOf('three'), idOf('four')], format: 'csv' }))
  expect(reply.headers.get('content-disposition')).toContain('savings-2026-10-31.csv')
  const lines = (await reply.text())
    .replace(/^\uFEFF/, '')
    .trim()
    .split(/\r?\n/)
  expect(lines[0]).toContain('Kind,What,Resource,Resource ID,Provider')
  expect(lines[1]).toMatch(
    /^Fees without use,three is paid for and not used,three,id-three,Testcloud,S gateway,live,r1,The petra,Centre deck,spotted,,EUR,36\.5,,36\.5,10,/,
  )
  expect(lines).toHaveLength(3)
  expect((await server.call('savings/file', post({ ids: ['none'], format: 'csv' }))).status).toBe(404)
  expect((await server.call('savings/file', post({ ids: [], format: 'csv' }))).status).toBe(422)
})

it('leaves as PDF, a page for each owner with what is to be done', async () => {
  const reply = await server.call('savings/file', post({ ids: [idOf('four'), idOf('three')], format: 'pdf' }))
  expect([reply.status, reply.headers.get('content-type')]).toEqual([200, 'application/pdf'])
  expect(reply.headers.get('content-disposition')).toContain('savings-2026-10-31.pdf')
  const text = await pdfText(new Uint8Array(await reply.arrayBuffer()))
  const { opportunities } = savingsState.parse(await server.json('savings'))
  const [three, four] = ['three', 'four'].map(name => opportunities.find(({ resourceName }) => resourceName === name)!)
  for (const { title, owner } of [three!, four!]) {
    expect(text).toContain(title)
    expect(text).toContain(owner === null ? 'What can be saved, of nobody' : `What can be saved, for ${owner}`)
  }
  expect(text).toContain('36.50 EUR a month, each amount once')
  expect(text).toContain(three!.byHand!.steps[0]!)
  expect(text).toContain('charges to 2026-10-31')
})
