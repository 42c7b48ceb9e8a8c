import { expect, it } from 'vitest'
import { connectionDetectorOf } from '../../../core/opportunity/detectors'
import { addDays } from '../../../core/time/day'
import { brackwaterCard as card } from '../../../demo/rate-cards'
import { savingsState } from '../../../shared/contracts/savings'

const today = '2026-11-24'
const resource = { id: 's1', name: 'old-share', type: 'share', region: 'low-coast', subAccountName: 'live', createdAt: '', tags: {} }
const price = card.prices.find(p => p.meter === 'gateway-hour' && p.region === 'low-coast')!.tiers[0]!.price
const facts = (gb: number, what = 'copied') => ({
  resource,
  readings: new Map([['read', [{ at: `${addDays(today, -4)}T05:00:00Z`, value: gb }]]]),
  events: [{ id: 'e1', at: `${addDays(today, -2)}T05:00:00Z`, resourceId: 's1', what, by: 'Siri' }],
  charges: [{ day: today, sku: null, meter: null, unit: 'GB', currency: 'EUR', quantity: '200', effectiveCost: '1' }],
})
const detector = connectionDetectorOf('unread-share')
const find = (gb: number, what?: string) => detector.find([facts(gb, what)], { card, today })

it('a detector that was added finds by what was measured, has happened and was charged, says why not, and is a legal reply', async () => {
  const [found] = await find(0.4)
  expect(Number(found!.monthlySaving)).toBeCloseTo(200 * Number(price), 9)
  expect([await find(0.5), await find(0.4, 'attached')]).toEqual([[], []])
  expect(detector.whyNot(found!, facts(0.4), { card, today })).toBeNull()
  expect(detector.whyNot(found!, facts(0.5), { card, today })).toContain('read again')
  const view = {
    ...found!,
    state: 'spotted',
    foundAt: today,
    canDo: { deed: detector.action.deed, noun: 'share' },
    byHand: null,
    decision: null,
    cameBack: false,
    counted: null,
    firstYear: '1',
    centre: null,
    owner: null,
    action: null,
  }
  const whole = { currency: null, total: '0', notCounted: [], unrated: [], isBest: true }
  const state = { connected: true, said: [detector.says(1)], opportunities: [view], whole, finders: [], ledger: [], revision: 1 }
  expect(savingsState.parse(state).opportunities[0]!.evidence.series[0]!.unit).toBe('GB')
})
