// People are made, changed and taken away one by one; what they see follows at once.
import { expect, it } from 'vitest'
import type { AllocationPlan } from '../../core/allocation/plan'
import { planState, planVersions } from '../../shared/contracts/allocation'
import { peopleList } from '../../shared/contracts/people'
import { organisationState } from '../../shared/contracts/reference-data'
import { ownServer } from '../support/own-server'
import { post, put } from '../support/server'

const server = ownServer()
const as = (name: string) => ({ cookie: `rain-barrel-person=${encodeURIComponent(name)}` })
const person = (name: string, bound: string[] | null = null) => ({ name, role: 'lead', bound, seesPools: false })
const save = (id: string, body: object, who = 'Ines') => server.call(`people/${encodeURIComponent(id)}`, put(body, as(who)))
const centre = (id: string) => ({ id, name: id, parent: id === 'all' ? null : 'all', owner: null })
const plan: AllocationPlan = { centres: [centre('all'), centre('sea')], pools: [], rules: [] }

it('begins with nobody; the first cost centre is saved on version 0, the first person sees all', async () => {
  expect(planVersions.parse(await server.json('allocation/versions'))).toEqual({ versions: [] })
  expect(await server.json('allocation/plan', put({ basedOn: 0, plan }))).toEqual({ version: 1 })
  const alone = await save('fenna', person('Fenna', ['sea']))
  expect([alone.status, await alone.text()]).toEqual([409, expect.stringContaining('Nobody would be left')])
  expect((await save('ines', person('Ines'))).status).toBe(200)
  expect((await save('fenna', person('Fenna', ['sea']))).status).toBe(200)
  const { people } = organisationState.parse(await server.json('organisation', { headers: as('Ines') }))
  expect(people).toEqual([
    { id: 'fenna', name: 'Fenna', role: 'lead', mail: null, bound: ['sea'], seesPools: false },
    { id: 'ines', name: 'Ines', role: 'lead', mail: null, bound: null, seesPools: false },
  ])
})

it('keeps what is wrong out, and whoever sees a part from it', async () => {
  const unknown = await save('x', person('X', ['nowhere']))
  expect([unknown.status, await unknown.text()]).toEqual([409, expect.stringContaining('«nowhere» is no cost centre')])
  expect((await save('a/b', person('X'))).status).toBe(422)
  expect((await save('x', { ...person('X'), name: '' })).status).toBe(422)
  const last = await save('ines', person('Ines', ['sea']))
  expect([last.status, await last.text()]).toEqual([409, expect.stringContaining('Nobody would be left')])
  expect((await save('x', person('X'), 'Fenna')).status).toBe(403)
  expect(peopleList.parse(await server.json('people')).people.map(({ id }) => id)).toEqual(['fenna', 'ines'])
})

it('what somebody sees is another at once, and one who goes is gone', async () => {
  const me = async () => peopleList.parse(await server.json('people', { headers: as('Fenna') })).me
  expect((await me())?.bound).toEqual([{ id: 'sea', name: 'sea' }])
  expect((await save('fenna', person('Fenna'))).status).toBe(200)
  expect((await me())?.bound).toBeNull()
  const remove = (id: string, who: string) => server.call(`people/${id}`, { method: 'DELETE', headers: as(who) })
  expect((await remove('nobody', 'Ines')).status).toBe(404)
  expect((await remove('ines', 'Ines')).status).toBe(409)
  expect((await remove('ines', 'Fenna')).status).toBe(200)
  expect(peopleList.parse(await server.json('people')).people.map(({ id }) => id)).toEqual(['fenna'])
  // a name like that of an object's own is one like any other
  expect((await save('constructor', person('constructor'), 'Fenna')).status).toBe(200)
  expect(planState.parse(await server.json('allocation/plan', { headers: as('constructor') })).version).toBe(1)
  await server.json('organisation', post({ people: [], plan, basedOn: 1 }, as('Fenna')))
})
