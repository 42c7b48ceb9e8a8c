// An estimate being worked on: edits and undo, saving beside someone else, another version of a card and back.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { useEstimate } from '../../../app/stores/estimate'
import { findKind } from '../../../core/estimate/components'
import type { Estimate } from '../../../core/estimate/estimate'
import { figureText } from '../../../core/estimate/pricing/price-estimate'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { answering, refusal } from '../../support/answering'
import { testCard, testEstimate } from '../../support/test-card'

const ID = '00000000-0000-4000-8000-000000000001'
/** The same card a month later, disks at twice the price. */
const dearer: RateCard = {
  ...testCard,
  validFrom: '2026-02-01',
  prices: testCard.prices.map(line => (line.meter === 'disk-gb-month' ? { ...line, tiers: [{ from: '0', price: '0.16' }] } : line)),
}
const entry = ({ validFrom }: RateCard) => ({
  ...{ provider: 'Testcloud', currency: 'EUR', validFrom, revision: 1, prices: 10, regions: ['here'], who: 'Ines Moldal', loadedAt: '' },
})
const estimate = (): Estimate => testEstimate([['disk', { class: 'plain', storageGb: '100', count: '1' }]])
const saved = (version = 1, e = estimate()) => ({
  id: ID,
  version,
  estimate: e,
  who: 'Ines Moldal',
  savedAt: '2026-11-01T00:00:00Z',
  name: null,
})
const reading = (found = saved()) => ({
  [`GET estimates/${ID}`]: () => ({ body: found }),
  'GET rate-cards': () => ({ body: { cards: [entry(dearer), entry(testCard)] } }),
  'GET uplifts': () => ({ body: { uplifts: [] } }),
  'GET patterns': () => ({ body: { patterns: [] } }),
  'GET rates': () => ({ body: { rates: [] } }),
  'GET rate-cards/Testcloud': ({ path }: { path: string }) => ({ body: path.includes('date=2026-02-01') ? dearer : testCard }),
})
async function opened() {
  const store = useEstimate()
  await store.open(ID)
  expect(store.problem).toBeNull()
  return store
}
const monthly = (store: ReturnType<typeof useEstimate>) => figureText(store.base!.total.monthly)

beforeEach(() => {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
})

it('every edit is one step that can be undone and done again; what changes nothing is none', async () => {
  answering(reading())
  const store = await opened()
  const [row] = store.estimate!.components
  expect([monthly(store), store.unsaved]).toEqual(['8', false])
  store.set([row!.id], 'storageGb', '200')
  store.duplicate(row!.id)
  expect([monthly(store), store.past.length, store.unsaved]).toEqual(['32', 2, true])
  store.set([row!.id], 'storageGb', '200')
  store.addRows([])
  expect(store.past).toHaveLength(2)
  store.undo()
  expect([monthly(store), store.future.length]).toEqual(['16', 1])
  store.redo()
  store.undo()
  store.undo()
  store.undo()
  expect([monthly(store), store.past.length, store.future.length, store.unsaved]).toEqual(['8', 0, 2, false])
  store.patch({ taxPercent: '25' })
  expect([monthly(store), store.future.length]).toEqual(['10', 0])
  const added = store.add(findKind('disk')!, 'Other')
  expect([store.parts.at(-1), store.byId.get(added)!.kind]).toEqual(['Other', 'disk'])
})

it('a scenario is looked at until it is gone; inputs set meanwhile are its own', async () => {
  answering(reading())
  const store = await opened()
  const id = store.estimate!.components[0]!.id
  const scenario = store.addScenario('larger')
  store.scenarioId = scenario
  store.set([id], 'storageGb', '300')
  expect([monthly(store), figureText(store.priced!.total.monthly), store.isOverridden(id, 'storageGb')]).toEqual(['8', '24', true])
  expect(store.differences('monthly').get(scenario)!.rows.get(id)!.amount).toBe('16')
  store.dropOverride(id, 'storageGb')
  expect([figureText(store.priced!.total.monthly), store.isOverridden(id, 'storageGb')]).toEqual(['8', false])
  store.undo()
  store.undo()
  expect(store.scenarioId).toBe(scenario)
  store.undo()
  expect(store.scenarioId).toBeNull()
  store.redo()
  store.redo()
  store.adopt(scenario)
  expect(monthly(store)).toBe('24')
})

it('saving names the version it was made from; who was quicker is not overwritten', async () => {
  const log = answering({ ...reading(), [`PUT estimates/${ID}`]: () => ({ body: { id: ID, version: 2 } }) })
  const store = await opened()
  store.patch({ taxPercent: '25' })
  expect(await store.save('agreed')).toBe(true)
  expect(log.at(-1)!.body).toMatchObject({ basedOn: 1, name: 'agreed', estimate: { taxPercent: '25' } })
  expect([store.unsaved, store.saved!.version]).toEqual([false, 2])
  const theirs = saved(3, { ...estimate(), taxPercent: '19' })
  answering({ ...reading(theirs), [`PUT estimates/${ID}`]: () => refusal(409, 'conflict', 'Someone has saved meanwhile.') })
  store.patch({ taxPercent: '7' })
  expect(await store.save()).toBe(false)
  expect([store.overtaken!.version, store.estimate!.taxPercent, store.unsaved, store.saving]).toEqual([3, '7', true, false])
  // what cannot be saved is said before it is sent
  store.patch({ taxPercent: '101' })
  expect(await store.save()).toBe(false)
  expect(store.problem!.detail).toBe('taxPercent: a percentage from 0 to 100')
})

it('another version of a card prices anew, and undo goes back to the one before without asking for it again', async () => {
  const log = answering(reading())
  const store = await opened()
  expect(store.newerCards.map(({ validFrom }) => validFrom)).toEqual(['2026-02-01'])
  await store.nameCard({ provider: 'Testcloud', date: '2026-02-01', revision: 1 })
  expect([monthly(store), store.newerCards]).toEqual(['16', []])
  const asked = log.length
  store.undo()
  await nextTick()
  await vi.waitFor(() => expect(monthly(store)).toBe('8'))
  store.redo()
  await vi.waitFor(() => expect(monthly(store)).toBe('16'))
  expect(log).toHaveLength(asked)
})

it('an estimate that cannot be read says so and leaves none behind', async () => {
  answering(reading())
  const store = await opened()
  answering({ ...reading(), [`GET estimates/${ID}`]: () => refusal(404, 'not-found', 'There is no such estimate.') })
  await store.open(ID)
  expect([store.problem!.detail, store.estimate, store.columns]).toEqual(['There is no such estimate.', null, []])
})
