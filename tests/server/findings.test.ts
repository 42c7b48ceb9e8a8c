// What one detector finds through one connection is no other's: kept, found again, gone, acted on in vain.
import { sql } from 'drizzle-orm'
import { expect, it } from 'vitest'
import type { Opportunity } from '../../core/opportunity/opportunity'
import { approveAll, findOpportunity, keepFound, listOpportunities, noteStep } from '../../server/stores/savings'
import { ownDatabase } from '../support/own-server'

const own = ownDatabase()

const finding = (id: string, monthlySaving = '10'): Opportunity => ({
  ...{
    id,
    detector: 'idle-gateway',
    title: id,
    resourceId: id,
    resourceName: id,
    provider: 'P',
    region: 'r',
    subAccountName: 's',
    tags: {},
  },
  ...{ currency: 'EUR', monthlySaving, minutesOfWork: 1, service: 'S', oneOff: null, confidence: 'measured', risk: 'none' },
  effects: [{ resourceId: id, sku: 'x', how: 'gone', now: monthlySaving, then: '0' }],
  working: { op: 'input', label: 'a month', value: monthlySaving },
  evidence: { from: '2026-10-01', to: '2026-10-31', series: [] },
})
const cloud = { detector: 'idle-gateway', connection: 'cloud' }
const kept = async () => (await listOpportunities(own.database.db)).map(({ opportunity: { id, state } }) => `${id} ${state}`)

it('a look takes away what that detector had spotted through that connection and finds no longer, and nothing else', async () => {
  await keepFound(own.database.db, [finding('a'), finding('b')], cloud)
  await keepFound(own.database.db, [finding('c')], { ...cloud, connection: 'constructor' })
  await keepFound(own.database.db, [finding('d')], { detector: 'another', connection: 'cloud' })
  expect(await kept()).toEqual(['a spotted', 'b spotted', 'c spotted', 'd spotted'])
  await keepFound(own.database.db, [finding('b', '12')], cloud)
  expect(await kept()).toEqual(['b spotted', 'c spotted', 'd spotted'])
  expect((await findOpportunity(own.database.db, 'b'))!.opportunity.body.monthlySaving).toBe('12')
  await keepFound(own.database.db, [], { detector: 'another', connection: 'cloud' })
  expect(await kept()).toEqual(['b spotted', 'c spotted'])
})

it('what was acted on in vain stays as gone, what is done stays done', async () => {
  await keepFound(own.database.db, [finding('b'), finding('e')], cloud)
  for (const [id, state] of [
    ['b', 'failed'],
    ['e', 'done'],
  ] as const) {
    const { opportunity } = (await findOpportunity(own.database.db, id))!
    const [approved] = await approveAll(own.database.db, [{ ...opportunity, needsSecond: false }], 'ines')
    await noteStep(own.database.db, approved!, state, { at: '2026-11-01T00:00:00Z', who: 'ines', what: 'try', outcome: state })
  }
  await keepFound(own.database.db, [], cloud)
  expect(await kept()).toEqual(['b gone', 'c spotted', 'e done'])
  await keepFound(own.database.db, [finding('b'), finding('e')], cloud)
  expect(await kept()).toEqual(['b spotted', 'c spotted', 'e done'])
})

it('evidence that was kept in the form of before is read as the present one', async () => {
  const evidence = { from: '2026-10-01', to: '2026-10-31', hoursMeasured: 24, gbTotal: '0', dailyGb: [{ day: '2026-10-01', gb: 0 }] }
  await own.database.db.execute(
    sql`update opportunity set body = jsonb_set(body, '{evidence}', ${JSON.stringify(evidence)}::jsonb) where id = 'c'`,
  )
  expect((await findOpportunity(own.database.db, 'c'))!.opportunity.body.evidence.series).toMatchObject([
    { unit: 'GB', days: [{ day: '2026-10-01', value: 0 }], said: 'Nothing passed in 1 day, measured every hour.' },
  ])
})
