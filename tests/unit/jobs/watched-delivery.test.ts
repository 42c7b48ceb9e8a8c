// What is to be done with what lies in a watched folder: by content, by when it was written, and by what came of it before.
import { expect, it } from 'vitest'
import { retryAt } from '../../../core/time/retry'
import type { DeliveredLoad } from '../../../server/imports/load-list'
import { inOrder, watchedVerdict } from '../../../server/jobs/kinds/watched-delivery'

const at = '2026-11-20T06:00:00.000Z'
const load = (id: number, more: Partial<DeliveredLoad> = {}): DeliveredLoad => ({
  id,
  key: 'content',
  state: 'loaded',
  deliveredAt: at,
  deliveredBy: 'file',
  finishedAt: '2026-11-20T07:00:00Z',
  counts: false,
  ...more,
})
const verdict = (loads: DeliveredLoad[], now: string, more: object = {}) =>
  watchedVerdict({ key: 'content', at }, loads, { now, isFirst: true, isAsked: false, ...more })

it('takes what is new and leaves what is loaded, waits for a choice or is being read', () => {
  expect(verdict([], at).what).toBe('take')
  for (const state of ['loaded', 'undone', 'choosing', 'checking', 'loading'] as const)
    expect(verdict([load(1, { state })], at).what).toBe('loaded')
  // what was loaded before its time was kept is known by its content
  expect(verdict([load(1, { deliveredAt: null })], at).what).toBe('loaded')
})

it('the same content written anew is another delivery, unless it is what counts', () => {
  const earlier = { deliveredAt: '2026-11-18T06:00:00Z' }
  expect(verdict([load(1, earlier)], at).what).toBe('take')
  expect(verdict([load(1, { ...earlier, counts: true })], at).what).toBe('loaded')
  // but something else is taken before it at this look
  expect(verdict([load(1, { ...earlier, counts: true })], at, { isFirst: false }).what).toBe('take')
})

it('what was refused or stopped is tried again after ten, then twenty minutes, then a person is told', () => {
  expect(retryAt(1, '2026-11-20T07:00:00Z')).toBe('2026-11-20T07:10:00.000Z')
  expect(retryAt(2, '2026-11-20T07:00:00Z')).toBe('2026-11-20T07:20:00.000Z')
  expect(retryAt(3, '2026-11-20T07:00:00Z')).toBeNull()
  for (const state of ['refused', 'stopped'] as const) {
    const once = [load(1, { state })]
    expect(verdict(once, '2026-11-20T07:09:00.000Z')).toMatchObject({ what: 'wait', until: '2026-11-20T07:10:00.000Z' })
    expect(verdict(once, '2026-11-20T07:10:00.000Z').what).toBe('take')
    expect(verdict(once, '2026-11-20T07:00:01.000Z', { isAsked: true }).what).toBe('take')
    const three = [load(3, { state }), load(2, { state }), load(1, { state })]
    expect(verdict(three, '2026-11-30T07:00:00.000Z')).toMatchObject({ what: 'tell', load: { id: 3 } })
    expect(verdict(three, '2026-11-30T07:00:00.000Z', { isAsked: true }).what).toBe('take')
    // failures before it was loaded once do not count
    expect(verdict([load(4, { state }), load(3), load(2, { state }), load(1, { state })], '2026-11-20T07:05:00.000Z')).toMatchObject({
      what: 'wait',
      until: '2026-11-20T07:10:00.000Z',
    })
  }
})

it('goes by time, at equal times by name with numbers as numbers', () => {
  const file = (name: string, time = at) => ({ name, at: time })
  expect(
    inOrder([file('part-10'), file('part-9'), file('part-1', '2026-11-21T00:00:00.000Z'), file('part-02')]).map(({ name }) => name),
  ).toEqual(['part-02', 'part-9', 'part-10', 'part-1'])
})
