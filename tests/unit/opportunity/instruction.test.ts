import { expect, it } from 'vitest'
import { byHand } from '../../../core/opportunity/acting'
import type { Opportunity } from '../../../core/opportunity/opportunity'
import { instructionUndo, instructionWords, settingOf, type Instruction, undoOf } from '../../../core/opportunity/instruction'

/** Asleep from Monday 20:00 to Tuesday 6:00, and from Friday 20:00 to Monday 6:00. */
const nights: Instruction = {
  type: 'server',
  deed: 'schedule',
  asleep: [
    { begin: 20, hours: 10 },
    { begin: 116, hours: 58 },
  ],
}
const disk = (more = {}): Instruction => ({ type: 'disk', deed: 'change class', from: 'swift', to: 'steady', ...more })

it('is said in words, with what is bought', () => {
  expect(instructionWords({ type: 'disk', deed: 'delete' })).toBe('delete it')
  expect(instructionWords({ type: 'disk', deed: 'snapshot and delete' })).toBe('take a snapshot of it, then delete it')
  expect(instructionWords({ type: 'server', deed: 'change size', from: 'big', to: 'mid' })).toBe('change its size from «big» to «mid»')
  expect(instructionWords(disk())).toBe('change its class from «swift» to «steady»')
  expect(instructionWords(disk({ iops: '1800' }))).toBe('change its class from «swift» to «steady», with 1800 operations a second bought')
  expect(instructionWords(disk({ iops: '0', mbps: '85' }))).toBe(
    'change its class from «swift» to «steady», with 0 operations and 85 MB a second bought',
  )
})

it('says what it was, and whether it can be undone', () => {
  expect(settingOf({ type: 'disk', deed: 'delete' })).toBeNull()
  expect(settingOf({ type: 'disk', deed: 'snapshot and delete' })).toBeNull()
  expect(settingOf(nights)).toBeNull()
  expect(settingOf(disk())).toEqual({ setting: 'class', from: 'swift', to: 'steady' })
  expect(settingOf({ type: 'server', deed: 'change size', from: 'a', to: 'b' })).toEqual({ setting: 'size', from: 'a', to: 'b' })
  expect(instructionUndo({ type: 'load balancer', deed: 'delete' })).toBe('A deleted load balancer cannot be restored.')
  expect(instructionUndo(disk())).toBe('It can be changed back to «swift».')
  expect(instructionUndo({ type: 'server', deed: 'change size', from: 'a', to: 'b' })).toBe(
    'It can be changed back to «a»; it restarts each time.',
  )
})

it('is told in the hours of a week in which something stands still', () => {
  expect(instructionWords(nights)).toBe('stop it every week Mon 20:00 to 06:00; Fri 20:00 to Mon 06:00 (UTC), and start it after that')
  expect(instructionUndo(nights)).toBe('The hours can be removed again: it then runs all week.')
})

it('is undone by the change the other way round, where that is all there was', () => {
  expect(undoOf({ type: 'disk', deed: 'change class', from: 'swift', to: 'plain' })).toEqual({
    ...{ type: 'disk', deed: 'change class', from: 'plain', to: 'swift' },
  })
  expect(undoOf({ type: 'server', deed: 'change size', from: 'a', to: 'b' })).toEqual({
    type: 'server',
    deed: 'change size',
    from: 'b',
    to: 'a',
  })
  const awake = undoOf(nights)!
  expect(awake).toEqual({ type: nights.type, deed: 'schedule', asleep: [] })
  expect(instructionWords(awake)).toBe('remove its hours, so that it runs all week')
  // what was bought before is not known any more
  expect(undoOf({ type: 'disk', deed: 'change class', from: 'swift', to: 'plain', iops: '500' })).toBeNull()
  expect(undoOf({ type: 'disk', deed: 'change class', from: 'swift', to: 'plain', mbps: '0' })).toBeNull()
  expect(undoOf({ type: 'disk', deed: 'delete' })).toBeNull()
  expect(undoOf({ type: 'disk', deed: 'snapshot and delete' })).toBeNull()
  expect(undoOf({ type: 'disk', deed: 'tag', key: 'a', value: 'b' })).toBeNull()
})

it('what a person does ends with saying so; what is done from here alone has no such steps', () => {
  const of = (detector: string) => byHand({ detector, resourceName: 'gate' } as Opportunity)
  expect(of('fee-without-use')).toEqual({
    steps: [
      'ask whoever made gate whether anything still waits for it',
      'delete gate at its provider',
      'mark it as done here: the bill then shows what was saved',
    ],
    undo: 'It can be created again, mostly under another address.',
  })
  expect(of('idle-gateway')).toBeNull()
})
