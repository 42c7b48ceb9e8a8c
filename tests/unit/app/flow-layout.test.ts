import { expect, it } from 'vitest'
import { flowLayout } from '../../../app/utils/flow-layout'

const node = (key: string) => ({ key, label: key, tone: 'x' })
const link = (from: string, to: string, amount: number) => ({ from, to, amount, tone: 'x' })

it('what comes into a node leaves it as wide; widths are in proportion to money; nothing overlaps or leaves the frame', () => {
  const { nodes, bands } = flowLayout(
    [
      { x: 0, nodes: ['P', 'Q'].map(node) },
      { x: 100, nodes: ['direct', 'pool', 'empty'].map(node) },
      { x: 200, nodes: ['a', 'b'].map(node) },
    ],
    [
      ...[link('P', 'direct', 60), link('P', 'pool', 20), link('Q', 'direct', 20)],
      ...[link('direct', 'a', 50), link('direct', 'b', 30), link('pool', 'b', 20), link('pool', 'a', 0), link('pool', 'a', -5)],
    ],
    109, // two nodes and the gap between them: a pixel to each of 100
  )
  const at = (key: string) => nodes.find(one => one.key === key)
  expect(nodes.map(({ key, y, height, amount }) => [key, y, height, amount])).toEqual([
    ['P', 0, 80, 80],
    ['Q', 89, 20, 20],
    ['direct', 0, 80, 80],
    ['pool', 89, 20, 20],
    ['a', 0, 50, 50],
    ['b', 59, 50, 50],
  ])
  expect(at('empty')).toBeUndefined()
  expect(bands.map(({ key }) => key)).toEqual(['P>direct', 'P>pool', 'Q>direct', 'direct>a', 'direct>b', 'pool>b'])
  // the band from Q begins at Q's top and ends where that from P ends in direct: 60 pixels down
  expect(bands[2]!.path).toBe('M10,89 C55,89 55,60 100,60 L100,80 C55,80 55,109 10,109Z')
  expect(bands[1]!.title).toBe('P to pool: 20')
})

it('of nothing it draws nothing', () => {
  expect(flowLayout([{ x: 0, nodes: [node('a')] }], [link('a', 'gone', 5)], 100).bands).toEqual([])
  expect(flowLayout([{ x: 0, nodes: [node('a')] }], [], 100)).toEqual({ nodes: [], bands: [] })
})
