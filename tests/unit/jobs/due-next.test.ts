import { expect, it } from 'vitest'
import { dueNext } from '../../../server/stores/jobs'

const NOW = '2026-11-27T10:00:00.000Z'
const job = (more: Partial<Parameters<typeof dueNext>[0]> = {}): Parameters<typeof dueNext>[0] => ({
  every: { count: 1, unit: 'day' },
  due: '2026-11-27T09:59:00.000Z',
  roundDue: '2026-11-27T09:59:00.000Z',
  pauseSeconds: 60,
  attempts: 0,
  ...more,
})
const due = (more: Parameters<typeof job>[0], state: Parameters<typeof dueNext>[1] = 'done') => dueNext(job(more), state, NOW).due

it('comes round at its time of the day, and leaves out rounds that have passed', () => {
  expect(due({})).toBe('2026-11-28T09:59:00.000Z')
  expect(due({ due: '2026-11-01T06:00:00.000Z', roundDue: '2026-11-01T06:00:00.000Z' })).toBe('2026-11-28T06:00:00.000Z')
  expect(due({ every: { count: 30, unit: 'minute' } })).toBe('2026-11-27T10:30:00.000Z')
  expect(due({ every: null })).toBeNull()
})

it('is not done again at its time when someone has just run it', () => {
  expect(due({ due: '2026-11-27T10:20:00.000Z', roundDue: '2026-11-27T10:20:00.000Z' })).toBe('2026-11-28T10:20:00.000Z')
  expect(due({ due: '2026-11-27T11:20:00.000Z', roundDue: '2026-11-27T11:20:00.000Z' })).toBe('2026-11-27T11:20:00.000Z')
})

it('is tried again after a pause that doubles, never later than its next round, which stays where it was', () => {
  const tried = (attempts: number, pauseSeconds = 60) => dueNext(job({ attempts, pauseSeconds }), 'failed', NOW)
  expect(tried(0)).toEqual({ due: '2026-11-27T10:01:00.000Z', roundDue: '2026-11-28T09:59:00.000Z' })
  expect(tried(3).due).toBe('2026-11-27T10:08:00.000Z')
  expect(tried(2, 3600).due).toBe('2026-11-27T14:00:00.000Z')
  expect(tried(20, 3600).due).toBe('2026-11-28T09:59:00.000Z')
  // a try in vain is over, and went well at last: the round is the one that was to come
  expect(due({ attempts: 3, due: NOW, roundDue: '2026-11-28T09:59:00.000Z' })).toBe('2026-11-28T09:59:00.000Z')
  // what is done once is not tried again by itself
  expect(dueNext(job({ every: null }), 'failed', NOW)).toEqual({ due: null, roundDue: null })
})

it('waits for its next round when nobody knows what became of it', () => {
  expect(due({}, 'not known')).toBe('2026-11-28T09:59:00.000Z')
})
