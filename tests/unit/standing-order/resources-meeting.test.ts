import { expect, it } from 'vitest'
import { chargedMeeting, namedMeeting } from '../../../core/standing-order/resources-meeting'
import { emptyReference } from '../../../core/spend/reference'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const charge = (id: string | null, day: string, tags: Record<string, string> = {}, values: Record<string, string> = {}): PlainCharge => ({
  ...{ day, hour: 0, currency: 'EUR', amount: '1', tags },
  values: { ...(id !== null && { ResourceId: id }), SubAccountId: 'acc', SubAccountName: 'live', ...values },
})
const without = [{ dimension: 'Tags/owner', values: [null] }]
const cube = cubeOf([
  charge('tagged later', '2026-11-20'),
  charge('tagged later', '2026-11-21', { owner: 'jon' }),
  charge('tag lost', '2026-11-20', { owner: 'jon' }),
  charge('tag lost', '2026-11-21'),
  charge('never', '2026-11-21', { Owner: 'by another key' }),
  charge('constructor', '2026-11-21'),
  charge('gone', '2026-11-10'),
  charge(null, '2026-11-21'),
  charge('inherits', '2026-11-21', {}, { SubAccountId: 'handed', SubAccountName: 'handed' }),
])
cube.setReference({ ...emptyReference, accounts: { handed: { path: [], tags: { owner: 'ida' } } } })
const span = { since: '2026-11-20', day: '2026-11-21' }

it('goes by the newest charges of what is charged since a day, with tags that are handed down', () => {
  expect(chargedMeeting(cube, without, span)).toEqual(['constructor', 'never', 'tag lost'])
  expect(chargedMeeting(cube, without, { ...span, day: '2026-11-20' })).toEqual(['tagged later'])
  expect(chargedMeeting(cube, without, { since: '2026-11-01', day: '2026-11-21' })).toEqual(['constructor', 'gone', 'never', 'tag lost'])
})

it('finds every resource without a condition, and what no charge has as having none', () => {
  expect(chargedMeeting(cube, [], span)).toEqual(['constructor', 'inherits', 'never', 'tag lost', 'tagged later'])
  expect(chargedMeeting(cube, [{ dimension: 'Tags/unheard of', values: [null] }], { ...span, since: '2026-11-21' })).toHaveLength(5)
  expect(chargedMeeting(cube, [...without, { dimension: 'ResourceId', pattern: 'CON*' }], span)).toEqual(['constructor'])
})

it('asks named resources by their charges, or, before there are any, by what is said of them', () => {
  const named = (id: string, tags: Record<string, string> = {}) => ({
    ...{ id, name: id, provider: 'P', region: 'r', subAccountName: 'live', tags },
  })
  const asked = [named('new'), named('new and owned', { owner: 'x' }), named('tagged later'), named('tag lost', { owner: 'said' })]
  expect(namedMeeting(cube, without, asked, '2026-11-21')).toEqual(['new', 'tag lost'])
  expect(namedMeeting(cube, [], [named('new'), named('new')], '2026-11-21')).toEqual(['new'])
})
