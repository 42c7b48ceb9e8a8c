import { expect, it } from 'vitest'
import { cubeOf } from '../../support/random-charges'

it('forgets a service with the charges that made it known', () => {
  const charge = { day: '2026-09-03', hour: 0, currency: 'EUR', amount: '1', tags: {} }
  const cube = cubeOf([
    { ...charge, values: { ResourceId: 'vault', ServiceName: 'Recovery' } },
    { ...charge, values: { ResourceId: 'copy', ServiceName: 'Snapshots' }, own: { x_CreatedBy: 'vault' } },
  ])
  expect(cube.coding('ServiceWhole').values).toEqual([null, 'Recovery', 'Snapshots'])
  cube.removePeriod('test', '2026-09-01T00:00:00Z')
  expect([...cube.serviceOfResource().keys()]).toEqual([])
  expect(cube.coding('ServiceWhole').layers[0]!.codes.every(code => code === 0)).toBe(true)
})
