import fc from 'fast-check'
import { expect, it } from 'vitest'
import { makerOf, type RegisteredPerson } from '../../../core/standing-order/maker'

const person = (id: string, name: string, mail: string | null = `${id.replace('-', '.')}@skerry.example`): RegisteredPerson => ({
  id,
  name,
  mail,
})
const register = [
  person('jon-aske', 'Jon Aske'),
  person('petra-holm', 'Petra Holm'),
  person('runa-torvik', 'Runa Torvik'),
  person('ole-berg', 'Ole Berg', null),
  person('oda-berg', 'Oda Berg'),
  // two of one name, told apart by their addresses only
  person('kim-1', 'Kim Dahl', 'kim.dahl@skerry.example'),
  person('kim-2', 'Kim Dahl', 'kim.dahl2@skerry.example'),
  person('constructor', 'Åse Førde', 'aase@skerry.example'),
]
const of = (actor: string) => makerOf(actor, register)

it('reads one person from an address, an account, a role or a name in any order', () => {
  for (const actor of [
    'jon.aske@skerry.example',
    'JON.ASKE@Skerry.Example',
    'SKERRY\\jon.aske',
    'role/admin/Jon Aske',
    'Aske, Jon',
    'jon_aske',
    'jon-aske',
    'Jon Aske (on call)',
    'federated:jon aske',
  ])
    expect(of(actor), actor).toEqual({ kind: 'person', person: 'jon-aske', read: expect.stringMatching(/^(jon aske|aske jon)$/) as string })
  expect(of('Ase Førde')).toMatchObject({ kind: 'person', person: 'constructor' }) // without its ring, and under an id like any other
  expect(of('constructor')).toMatchObject({ kind: 'person', person: 'constructor' })
})

it('asks where more than one may be meant, or one by less than a whole name', () => {
  expect(of('Kim Dahl')).toEqual({ kind: 'perhaps', people: ['kim-1', 'kim-2'], read: 'kim dahl' })
  expect(of('kim.dahl2@skerry.example')).toMatchObject({ kind: 'person', person: 'kim-2' })
  expect(of('kim.dahl@skerry.example')).toMatchObject({ kind: 'person', person: 'kim-1' })
  expect(of('o.berg')).toMatchObject({ kind: 'perhaps', people: ['ole-berg', 'oda-berg'] })
  expect(of('od.berg')).toMatchObject({ kind: 'perhaps', people: ['oda-berg'] })
  expect(of('Berg')).toMatchObject({ kind: 'perhaps', people: ['ole-berg', 'oda-berg'] })
  expect(of('p.holm')).toMatchObject({ kind: 'perhaps', people: ['petra-holm'] })
})

it('takes nobody for a stranger, an address elsewhere, a first name or nothing, and a machine for a machine', () => {
  for (const actor of [
    'jon.aske@elsewhere.example',
    'jon',
    'q.aske',
    'lars holmberg',
    '',
    '   ',
    '(on call)',
    '@skerry.example',
    '__proto__',
  ])
    expect(of(actor).kind, actor).toBe(actor === 'jon.aske@elsewhere.example' ? 'perhaps' : 'unknown')
  for (const actor of ['release pipeline', 'svc-rollout', 'system:scheduler', 'svc/jon.aske', 'CI', 'night-bot'])
    expect(of(actor).kind, actor).toBe('machine')
  // only whole words name a machine
  expect(of('Cilla Robotham').kind).toBe('unknown')
})

it('never names a person whom the register does not have, whatever an actor is', () => {
  const ids = new Set(register.map(({ id }) => id))
  fc.assert(
    fc.property(fc.string(), actor => {
      const maker = of(actor)
      const people = maker.kind === 'person' ? [maker.person] : maker.kind === 'perhaps' ? maker.people : []
      expect(people.every(id => ids.has(id))).toBe(true)
      expect(maker.kind !== 'perhaps' || people.length > 0).toBe(true)
      expect(makerOf(actor, []).kind).toMatch(/^(unknown|machine)$/)
    }),
  )
})
