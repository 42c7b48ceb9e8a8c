// Statements of a closed month are mailed to whoever answers for them, to each at most once, whatever happens meanwhile.
import { mkdtempSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { simpleParser, type ParsedMail } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { settlement } from '../../shared/contracts/allocation'
import { statementMails, type StatementMails } from '../../shared/contracts/statement-mails'
import { charge, focusCsv } from '../support/charges'
import { deliver } from '../support/imports'
import { pdfText } from '../support/pdf-text'
import { post, put, remove, startServer, type Running } from '../support/server'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-mails-'))
let server: Running
const taken: ParsedMail[] = []
/** What the mail server does with the next mails: to whom it says no, and to whom nothing at all once it has the mail. */
let refuses = ''
let hangsOver = ''
const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  onRcptTo({ address }, _session, done) {
    done(address === refuses ? new Error('no such mailbox') : null)
  },
  onData(stream, session, done) {
    simpleParser(stream).then(
      mail => {
        taken.push(mail)
        if (session.envelope.rcptTo.some(({ address }) => address === hangsOver)) return
        done()
      },
      (error: Error) => done(error),
    )
  },
})
const start = async () => {
  const { port } = smtp.server.address() as AddressInfo
  server = await startServer({ folder, env: { RAIN_BARREL_SMTP: `smtp://127.0.0.1:${port}`, RAIN_BARREL_URL: 'https://barrel.example' } })
}
beforeAll(async () => {
  await new Promise<void>(resolve => smtp.listen(0, '127.0.0.1', () => resolve()))
  await start()
})
afterAll(async () => {
  await server.stop('SIGKILL')
  smtp.close()
  remove(folder)
})

const centre = (id: string, parent: string | null, owner: string | null) => ({ id, name: `Centre ${id}`, parent, owner })
const plan = {
  centres: [
    centre('root', null, null),
    centre('ferry', 'root', 'fenna'),
    centre('deck', 'ferry', 'fenna'),
    centre('freight', 'root', 'bram'),
    centre('yard', 'root', 'arvid'),
    centre('pier', 'root', 'odd'),
  ],
  pools: [{ id: 'network', name: 'Network', method: 'even', among: { of: 'list', centres: ['deck', 'freight'] } }],
  rules: [
    { id: 'deck', conditions: [{ dimension: 'Tags/team', values: ['deck'] }], target: 'deck' },
    { id: 'freight', conditions: [{ dimension: 'Tags/team', values: ['freight'] }], target: 'freight' },
    { id: 'network', conditions: [{ dimension: 'ServiceName', values: ['Lines'] }], target: 'network' },
  ],
}
const person = (id: string, mail: string | null, bound: string[] | null = null) => ({ id, name: `The ${id}`, role: 'lead', mail, bound })
const people = [
  person('fenna', 'fenna@skerry.example', ['ferry']),
  person('bram', 'bram@skerry.example'),
  person('arvid', null),
  person('odd', 'odd@skerry.example'),
]
const line = (team: string, cost: string, more = {}) =>
  charge({
    ...{ BillingPeriodStart: '2025-10-01T00:00:00Z', BillingPeriodEnd: '2025-11-01T00:00:00Z' },
    ...{ ChargePeriodStart: '2025-10-05T00:00:00Z', ChargePeriodEnd: '2025-10-06T00:00:00Z' },
    ...{ BilledCost: cost, EffectiveCost: cost, Tags: JSON.stringify({ team }), ...more },
  })
const path = 'allocation/closings/2025-10/mails'
const state = async () => statementMails.parse(await server.json(path)).owners
const of = (owners: StatementMails['owners']) => owners.map(({ person, state, said }) => [person, state, said])
const send = (again: string[] = []) => server.json(path, post({ again }))
/** Waits until nobody's mail is under way. */
async function settled(): Promise<StatementMails['owners']> {
  for (;;) {
    const { jobs } = await server.json<{ jobs: { kind: string }[] }>('jobs')
    if (!jobs.some(({ kind }) => kind === 'statement-mail')) return state()
    await new Promise(resolve => setTimeout(resolve, 50))
  }
}

it('is for closed months, and for whoever answers for a cost centre', async () => {
  await server.json('organisation', post({ people, plan }))
  await deliver(server, 'bill', focusCsv([line('deck', '60'), line('freight', '40'), line('x', '10.01', { ServiceName: 'Lines' })]))
  expect((await server.call(path)).status).toBe(404)
  expect((await server.call(path, post({ again: [] }))).status).toBe(404)
  const { revision, version, basis } = settlement.parse(await server.json('allocation/settlement?measure=billedCost&month=2025-10'))
  await server.json('allocation/closings', post({ month: '2025-10', measure: 'billedCost', revision, version, basis }))
  expect((await state()).map(({ person, mail, centres, state }) => [person, mail, centres, state])).toEqual([
    ['arvid', null, ['Centre yard'], null],
    ['bram', 'bram@skerry.example', ['Centre freight'], null],
    ['fenna', 'fenna@skerry.example', ['Centre ferry'], null],
    ['odd', 'odd@skerry.example', ['Centre pier'], null],
  ])
})

it('sends each owner what is theirs, as far as they may see it, and says whom it did not reach', async () => {
  refuses = 'odd@skerry.example'
  await send()
  const owners = await settled()
  expect(of(owners)).toEqual([
    ['arvid', null, null],
    ['bram', 'sent', 'sent to bram@skerry.example'],
    ['fenna', 'sent', 'sent to fenna@skerry.example'],
    ['odd', 'failed', expect.stringContaining('no such mailbox')],
  ])
  expect(taken.map(({ subject }) => subject)).toEqual(['Statements of October 2025', 'Statements of October 2025'])
  const mailOf = (address: string) => taken.find(({ to }) => JSON.stringify(to).includes(address))!
  const fenna = mailOf('fenna@skerry.example')
  expect(fenna.text).toContain('Your statements of October 2025: Centre ferry, each with all below it.')
  expect(fenna.text).toContain('https://barrel.example/allocation?month=2025-10')
  expect(fenna.attachments.map(({ filename }) => filename)).toEqual(['statements-2025-10-ferry.pdf'])
  const text = await pdfText(fenna.attachments[0]!.content)
  expect(text).toContain('Centre deck')
  expect(text).not.toContain('freight')
  // she sees a part of the company: what she bears of a pool, and not what the pool is
  expect(text).toContain('5.01')
  expect(text).not.toContain('10.01')
  expect(await pdfText(mailOf('bram@skerry.example').attachments[0]!.content)).toContain('10.01')
})

it('sends nobody anything twice, and what was not taken once more', async () => {
  refuses = ''
  await Promise.all([send(), send(['bram']), send()])
  expect(of(await settled())).toEqual([
    ['arvid', null, null],
    ['bram', 'sent', 'sent to bram@skerry.example'],
    ['fenna', 'sent', 'sent to fenna@skerry.example'],
    ['odd', 'sent', 'sent to odd@skerry.example'],
  ])
  expect(taken).toHaveLength(3)
})

it('where Rain Barrel ends over a mail nobody knows, and only a person sends it again', async () => {
  await server.json('people/arvid', put({ ...person('arvid', 'arvid@skerry.example'), id: undefined }))
  hangsOver = 'arvid@skerry.example'
  await send()
  while (taken.length < 4) await new Promise(resolve => setTimeout(resolve, 20))
  await server.stop('SIGKILL')
  await start()
  expect(of(await settled())[0]).toEqual(['arvid', 'not known', expect.stringContaining('nobody knows')])
  hangsOver = ''
  await send()
  expect(of(await settled())[0]![1]).toBe('not known')
  expect(taken).toHaveLength(4)
  await send(['arvid'])
  expect(of(await settled())[0]).toEqual(['arvid', 'sent', 'sent to arvid@skerry.example'])
  expect(taken).toHaveLength(5)
})
