import { expect, it } from 'vitest'
import { add, divide, evaluate, input, largerOf, multiply, roundUp, smallerOf, subtract } from '../../../core/working/working'

it('evaluates every operation', () => {
  const two = input('two', 2)
  const three = input('three', '3.5')
  expect(evaluate(add('s', [two, three])).toFixed()).toBe('5.5')
  expect(evaluate(add('nothing', [])).toFixed()).toBe('0')
  expect(evaluate(multiply('p', [two, three])).toFixed()).toBe('7')
  expect(evaluate(subtract('d', [two, three, two])).toFixed()).toBe('-3.5')
  expect(evaluate(divide('q', [three, two])).toFixed()).toBe('1.75')
  expect(evaluate(smallerOf('m', [three, two])).toFixed()).toBe('2')
  expect(evaluate(largerOf('m', [two, three])).toFixed()).toBe('3.5')
  expect(evaluate(roundUp('c', [three])).toFixed()).toBe('4')
  expect(() => evaluate(divide('q', [two, input('zero', 0)]))).toThrow('divides by zero')
})
