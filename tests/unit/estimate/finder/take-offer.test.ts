import { expect, it } from 'vitest'
import { findMachines, type Needs, type Offer } from '../../../../core/estimate/finder/find-machines'
import { addOffer, fillRow, type Taken } from '../../../../core/estimate/finder/take-offer'
import { newEstimate, newRow } from '../../../../core/estimate/estimate'
import { brackwaterCard, larkfieldCard } from '../../../../demo/rate-cards'
import { pricesOf } from '../../../support/test-card'

const needs: Needs = {
  vcpu: 4,
  memoryGb: 16,
  architecture: '',
  system: 'open, no licence',
  host: 'shared host',
  diskGb: '80',
  hoursPerMonth: 'always on',
  count: '3',
  places: [],
  residencies: [],
}
const home = newEstimate('Home', brackwaterCard, 'low-coast')
const { offers } = findMachines(needs, pricesOf(brackwaterCard, larkfieldCard), { ...home, startsOn: null }, 'on-demand')
const offerAt = (region: string): Offer => offers.find(o => o.region === region)!
const card = { provider: larkfieldCard.provider, date: larkfieldCard.validFrom, revision: 2 }
const taken = (offer: Offer, more: Partial<Taken> = {}): Taken => ({ offer, needs, way: 'on-demand', card, ...more })
const ids = () => {
  let n = 0
  return () => `id${++n}`
}

it('adds the machine and its disk to the last part, and names the card of another provider', () => {
  const begun = { ...home, components: [newRow('a', 'Web', 'server', {}), newRow('b', 'Store', 'disk', {})] }
  const offer = offerAt('lk-alpha')
  const added = addOffer(begun, taken(offer, { way: '1 year, paid monthly' }), ids())
  expect(added.components.slice(0, 2)).toEqual(begun.components)
  expect(added.components.slice(2).map(({ id, part, kind, inputs }) => ({ id, part, kind, inputs }))).toEqual([
    {
      id: 'id1',
      part: 'Store',
      kind: 'server',
      inputs: {
        size: offer.size,
        system: 'open, no licence',
        host: 'shared host',
        hoursPerMonth: 'always on',
        count: '3',
        pays: '1 year, paid monthly',
        where: 'Larkfield Compute/lk-alpha',
      },
    },
    {
      id: 'id2',
      part: 'Store',
      kind: 'disk',
      inputs: { class: offer.diskClass, storageGb: '80', count: '3', where: 'Larkfield Compute/lk-alpha' },
    },
  ])
  expect(added.cards).toEqual([...home.cards, card])
})

it('writes no place where the estimate stands, a region of its provider, and no disk where none was asked for', () => {
  const own = { provider: brackwaterCard.provider, date: '2020-01-01', revision: 9 }
  const here = addOffer(home, taken({ ...offerAt('low-coast'), diskClass: null }, { card: own }), ids())
  expect(here.components.map(c => [c.part, c.kind, c.inputs.where])).toEqual([['Workload', 'server', undefined]])
  // the version that it names already stays
  expect(here.cards).toEqual(home.cards)
  const there = addOffer(home, taken(offerAt('north-fjord'), { card: own }), ids())
  expect(there.components.map(c => c.inputs.where)).toEqual(['north-fjord', 'north-fjord'])
})

it("fills a row's size and place, confirms it, and keeps its way to pay where the wished one is not offered", () => {
  const row = {
    ...newRow('a', 'Web', 'server', { size: 'otter-2x8', count: '2', pays: 'on-demand', where: 'north-fjord' }),
    confirmed: ['size', 'count'],
  }
  const other = newRow('b', 'Web', 'server', { size: 'otter-2x8' })
  const begun = { ...home, components: [row, other] }
  const offer = offerAt('low-coast')
  const filled = fillRow(begun, 'a', taken(offer, { way: '1 year, paid monthly', card: { ...card, provider: brackwaterCard.provider } }))
  expect(filled.components[0]!.inputs).toEqual({ size: offer.size, count: '2', pays: '1 year, paid monthly', where: '' })
  expect(filled.components[0]!.confirmed).toEqual(['size', 'count'])
  expect(filled.components[1]).toBe(other)
  const kept = fillRow(
    begun,
    'a',
    taken({ ...offer, ways: offer.ways.filter(w => w.way === 'on-demand') }, { way: '3 years, all in advance' }),
  )
  expect(kept.components[0]!.inputs.pays).toBe('on-demand')
  // a row that says nothing of paying goes on saying nothing
  expect(fillRow(begun, 'b', taken(offer)).components[1]!.inputs).toEqual({ size: offer.size, where: '' })
  expect(fillRow(begun, 'b', taken(offer)).components[1]!.confirmed).toEqual(['size'])
})
