import { expect, it } from 'vitest'
import type { OrderDefinition } from '../../../core/standing-order/definition'
import type { FoundResource, Making } from '../../../core/standing-order/found'
import { verdictOn, type Around } from '../../../core/standing-order/verdict'

const order = (more: Partial<OrderDefinition> = {}): OrderDefinition => ({
  ...{ name: 'owner', finds: { what: 'resources', conditions: [], made: null, costAtLeast: null }, waitDays: 0 },
  ...{ does: { deed: 'tag owner', key: 'owner', form: 'mail' }, starts: { by: 'person' }, brake: { resources: 10, monthlyCost: null } },
  ...more,
})
const making = (by: string, id = by): Making => ({ id, at: '2026-11-20T08:00:00Z', by, raw: null })
const found = (more: Partial<FoundResource> = {}): FoundResource => ({
  ...{ resourceId: 'x', name: 'x', type: 'Server', provider: 'P', region: null, subAccountName: 'live', firstDay: null, isOlder: false },
  ...{ costOfMonth: [], costSoFar: [], makings: [], owner: null, saving: null },
  ...more,
})
const around = (more: Partial<Around> = {}): Around => ({
  register: [
    { id: 'jon', name: 'Jon Aske', mail: 'jon@a.example' },
    { id: 'ida', name: 'Ida Aske', mail: 'ida@a.example' },
    { id: 'ole', name: 'Ole Berg', mail: null },
  ],
  ...{ exceptions: [], foundSince: new Map(), today: '2026-11-24' },
  ...more,
})

it('sets the tag of one certain maker, written as the order says', () => {
  const one = found({ makings: [making('Jon Aske')] })
  expect(verdictOn(one, order(), around())).toEqual({
    to: 'do',
    deed: { deed: 'tag', key: 'owner', value: 'jon@a.example' },
    because: '«Jon Aske» is read as jon aske: Jon Aske',
  })
  const by = (form: 'name' | 'id') => verdictOn(one, order({ does: { deed: 'tag owner', key: 'k', form } }), around())
  expect([by('name'), by('id')]).toMatchObject([{ deed: { key: 'k', value: 'Jon Aske' } }, { deed: { value: 'jon' } }])
  // told of twice by the same person, it is still theirs
  expect(verdictOn(found({ makings: [making('Jon Aske'), making('jon@a.example')] }), order(), around())).toMatchObject({ to: 'do' })
})

it('asks where it is not certain, with whom it may be, or whose it is by allocation', () => {
  const ask = (more: Partial<FoundResource>) => verdictOn(found(more), order(), around())
  const jon = { person: 'jon', value: 'jon@a.example' }
  const ida = { person: 'ida', value: 'ida@a.example' }
  expect(ask({ makings: [making('Aske')] })).toMatchObject({ to: 'ask', key: 'owner', candidates: [jon, ida] })
  expect(ask({ makings: [making('Jon Aske'), making('Ida Aske')] })).toMatchObject({ to: 'ask', candidates: [jon, ida] })
  expect(ask({ makings: [making('Jon Aske'), making('release pipeline')] })).toMatchObject({ to: 'ask', candidates: [jon] })
  expect(ask({ makings: [making('release pipeline')], owner: 'ida' })).toEqual({
    ...{ to: 'ask', key: 'owner', candidates: [ida], because: '«release pipeline» is a machine' },
  })
  expect(ask({ makings: [making('nobody known')] })).toMatchObject({ to: 'ask', candidates: [] })
  expect(ask({})).toMatchObject({ to: 'ask', candidates: [], because: 'no event tells who made it' })
  // certain, but without what the tag is to say
  expect(ask({ makings: [making('Ole Berg')], owner: 'jon' })).toMatchObject({
    ...{ to: 'ask', candidates: [jon], because: 'Ole Berg made it, and has no address to write into the tag' },
  })
})

it('leaves what is excepted alone until that day, exclusive, and waits until it was found for long enough', () => {
  const one = found({ makings: [making('Jon Aske')] })
  const excepted = (until: string | null) =>
    verdictOn(one, order(), around({ exceptions: [{ resourceId: 'x', reason: 'a trial', until }] }))
  expect(excepted('2026-11-25')).toEqual({ to: 'leave', because: 'excepted until 25 Nov 2026: a trial' })
  expect(excepted('2026-11-24')).toMatchObject({ to: 'do' })
  expect(excepted(null)).toEqual({ to: 'leave', because: 'excepted for good: a trial' })
  const waiting = (since: string | null, waitDays: number) =>
    verdictOn(one, order({ waitDays }), around({ foundSince: new Map(since ? [['x', since]] : []) }))
  expect(waiting('2026-11-21', 3)).toMatchObject({ to: 'do' })
  expect(waiting('2026-11-22', 3)).toMatchObject({ to: 'wait', until: '2026-11-25' })
  expect(waiting(null, 1)).toMatchObject({ to: 'wait', until: '2026-11-25' })
  expect(waiting(null, 0)).toMatchObject({ to: 'do' })
})

it('writes to the owner, else to whom the order names, else to nobody', () => {
  const notify = (otherwise: string | null, owner: string | null) =>
    verdictOn(found({ owner }), order({ does: { deed: 'notify', by: 'mail', otherwise, message: null } }), around())
  expect(notify('ida', 'jon')).toMatchObject({ to: 'do', deed: { deed: 'notify', person: 'jon' } })
  expect(notify('ida', null)).toMatchObject({ to: 'do', deed: { deed: 'notify', person: 'ida' } })
  expect(notify(null, null)).toMatchObject({ to: 'leave' })
})
