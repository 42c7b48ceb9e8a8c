import fc from 'fast-check'
import { expect, it } from 'vitest'
import { Decimal } from '../../../core/money/decimal'
import { scaledText } from '../../../core/money/scaled'
import type { Effect } from '../../../core/opportunity/effect'
import { differencesOf, inMinorUnits, type Promised } from '../../../core/opportunity/explained'
import { ANY, promisedSince, realisedSaving, type Charged } from '../../../core/opportunity/realised'

const charged = (sku: string, units: string, effective: string, unit = 'Hours', category = 'Standard'): Charged => ({
  ...{ sku, unit, category, units: new Decimal(units), effective: new Decimal(effective), billed: new Decimal(effective) },
})
const effect = (how: Effect['how'], now: string, then: string, sku = 's'): Effect => ({ resourceId: 'r', sku, how, now, then })

/** What lies between promised and seen, worked out for whole days from the hour of a deed. */
function between(
  effects: Effect[],
  facts: { before: Charged[]; since: Charged[]; days: number },
  { hour = 0, awake = null }: { hour?: number; awake?: number | null } = {},
) {
  const realised = realisedSaving(effects, { before: facts.before, daysBefore: 7, since: facts.since, daysSince: facts.days })!
  const monthly = effects.reduce((sum, { now, then }) => sum.plus(now).minus(then), new Decimal(0))
  const hours: Promised['hours'] = { all: facts.days * 24, before: hour, awake }
  const promised = promisedSince(monthly, hours.all - hour)
  const all = differencesOf(realised, { effects, hours }, promised)
  return { all: Object.fromEntries(all.map(({ kind, amount }) => [kind, amount.toFixed()])), promised, seen: realised.effective, list: all }
}

it('says nothing where everything went as promised, also when it was done in the middle of a day', () => {
  // 0.05 an hour, 36.50 a month, gone at 9:00: nine hours of the first day are charged
  const facts = { before: [charged('s', '168', '8.4')], since: [charged('s', '9', '0.45')], days: 3 }
  expect(between([effect('gone', '36.5', '0')], facts, { hour: 9 }).all).toEqual({})
})

it('takes use, price and days of a machine that sleeps at night apart', () => {
  // 0.10 an hour all week; asleep 84 of 168 hours: 73.00 a month, 36.50 saved. Seven days with a Saturday awake (24 hours that were to be
  // asleep), at a price of 0.12 since: planned are 84 hours, used were 108
  const facts = { before: [charged('s', '168', '16.8')], since: [charged('s', '108', '12.96')], days: 7 }
  const { all, promised, seen } = between([effect('less', '73', '36.5')], facts, { awake: 84 })
  expect(promised.toFixed()).toBe('8.4') // 36.50 / 730 × 168
  expect(seen.toFixed()).toBe('3.84') // 16.80 − 12.96
  expect(all).toEqual({ use: '-2.4', price: '-2.16' }) // 24 h at 0.10; 108 h at 0.02 more
})

it('does not call use what is only the weekdays: two days of which one is to be asleep whole', () => {
  // asleep 84 of 168 on average, but of these 48 hours 36 are planned to be asleep; and it was so
  const facts = { before: [charged('s', '168', '16.8')], since: [charged('s', '12', '1.2')], days: 2 }
  const { all, promised, seen } = between([effect('less', '73', '36.5')], facts, { awake: 12 })
  expect([promised.toFixed(), seen.toFixed()]).toEqual(['2.4', '3.6'])
  expect(all).toEqual({ days: '1.2' })
})

it('says what the promise began with where the days before cost something else', () => {
  // promised from 73.00 a month, of which nothing was to be left; in the week before the machine cost half
  const facts = { before: [charged('s', '168', '8.4')], since: [], days: 7 }
  expect(between([effect('gone', '73', '0')], facts).all).toEqual({ before: '-8.4' })
})

it('of what is cheaper says use and price, and what is charged for the first time', () => {
  // 70 GB at 0.10 a week before; promised 10.00 → 4.00 a month. Ten days: 200 GB at 0.05, and 3.00 for fetching
  const facts = {
    before: [charged('s', '70', '7', 'GB')],
    since: [charged('new', '200', '10', 'GB'), charged('fetch', '5', '3', 'requests')],
    days: 10,
  }
  const { all, promised, seen } = between([effect('cheaper', '10', '4')], facts)
  // seen: 20.00 − 10.00 − 3.00; promised 6.00 / 730 × 240; price: 20.00 × 0.4 − 10.00; use: 20.00 × 0.6 − promised
  expect(seen.toFixed()).toBe('7')
  expect(promised.round(10).toFixed()).toBe('1.9726027397')
  expect(all).toEqual({ use: '10.0273972603', price: '-2', new: '-3' })
})

it('tells what a commitment covered by itself: nothing of it was promised', () => {
  // 84 hours a week at 0.05 were promised; 84 more at 0.02 were covered, of which nobody uses what cost 0.50
  const before = [charged('s', '84', '4.2'), charged('s', '84', '1.68', 'Hours', 'Committed')]
  const commitments = [{ id: 'C', freed: new Decimal('1.68'), freedInAll: new Decimal('1.68'), unusedMore: new Decimal('0.5') }]
  const realised = realisedSaving([{ sku: 's', how: 'gone' }], { before, daysBefore: 7, since: [], daysSince: 7, commitments })!
  const hours = { all: 168, before: 0, awake: null }
  const promised = promisedSince(new Decimal('18.25'), 168)
  const all = differencesOf(realised, { effects: [effect('gone', '18.25', '0')], hours }, promised)
  expect(all.map(({ kind, amount }) => [kind, amount.toFixed()])).toEqual([['commitment', '1.18']])
  expect(promised.plus('1.18').eq(realised.effective)).toBe(true)
})

it('holds each SKU against its own promise, and what is less against the hours that are left of an average week', () => {
  // both 0.10 an hour, 73.00 a month; one gone, one to run half of the hours, from 12:00 of the first of two days on, hours not planned
  const before = [charged('gone', '168', '16.8'), charged('half', '168', '16.8')]
  const since = [charged('gone', '12', '1.2'), charged('half', '30', '3')]
  const effects = [effect('gone', '73', '0', 'gone'), effect('less', '73', '36.5', 'half')]
  const { all, promised, seen } = between(effects, { before, since, days: 2 }, { hour: 12 })
  // 36 hours at 0.10 and 36 at 0.05; seen 48 + 48 hours less 12 + 30
  expect([promised.toFixed(), seen.toFixed()]).toEqual(['5.4', '5.4'])
  expect(all).toEqual({})
  // six hours more of the one that was to run half
  const more = [since[0]!, charged('half', '36', '3.6')]
  expect(between(effects, { before, since: more, days: 2 }, { hour: 12 }).all).toEqual({ use: '-0.6' })
  // planned hours are for what sleeps: what is gone has none
  const asleep = between([effects[0]!], { before: [before[0]!], since: [since[0]!], days: 2 }, { hour: 12, awake: 40 })
  expect(asleep.all).toEqual({})
})

it('takes what was kept without effects as gone', () => {
  const facts = { before: [charged('s', '168', '8.4')], since: [charged('s', '24', '1.2')], days: 2 }
  const { all } = between([effect('gone', '36.5', '0', ANY)], facts)
  expect(all).toEqual({ use: '-1.2' })
})

const cents = fc.integer({ min: 0, max: 10_000_00 }).map(n => (n / 100).toFixed(2))
const units = fc.integer({ min: 1, max: 9_999 }).map(String)
const someEffect = fc.record({ how: fc.constantFrom('gone', 'less', 'cheaper'), now: cents, then: cents })

it('adds up to the cent, whatever was charged', () => {
  fc.assert(
    fc.property(
      ...[fc.array(fc.tuple(someEffect, units, cents, fc.option(fc.tuple(units, cents))), { minLength: 1, maxLength: 4 })],
      ...[fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 23 }), fc.constantFrom('EUR', 'JPY', 'KWD')],
      (lines, days, hour, currency) => {
        const effects = lines.map(([{ how, now, then }], i) => effect(how as Effect['how'], now, then, `s${i}`))
        const before = lines.map(([, u, cost], i) => charged(`s${i}`, u, cost))
        const since = lines.flatMap(([, , , after], i) => (after ? [charged(i % 2 ? `t${i}` : `s${i}`, after[0], after[1])] : []))
        const { list, promised, seen } = between(effects, { before, since, days }, { hour, awake: days * 12 })
        const sum = list.reduce((all, { amount }) => all.plus(amount), new Decimal(0))
        expect(sum.minus(seen.minus(promised)).abs().lt('1e-8')).toBe(true)
        const decimals = { EUR: 2, JPY: 0, KWD: 3 }[currency]!
        const cut = inMinorUnits(list, seen, promised, currency).reduce((all, { amount }) => all.plus(scaledText(amount)), new Decimal(0))
        const rounded = (one: Decimal) => one.round(decimals, Decimal.roundHalfUp)
        if (list.length) expect(cut.toFixed()).toBe(rounded(seen).minus(rounded(promised)).toFixed())
      },
    ),
    { numRuns: 200 },
  )
})
