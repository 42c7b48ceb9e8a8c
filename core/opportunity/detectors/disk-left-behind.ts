import type { BillDetector, Threshold } from '../detector'
import type { Bill } from '../bill/bill'
import { unitsBefore, unitsIn, usesOf, within, type BilledResource } from '../bill/billed-resource'
import { findingOf } from '../bill/finding'
import { snapshotFirst, snapshotSaid } from '../bill/snapshot-first'
import type { LookBack } from '../bill/stretches'

const days: Threshold = {
  key: 'days',
  label: 'its machine is gone for at least',
  unit: 'days',
  usual: 7,
  least: 3,
  most: 60,
  options: [60, 30, 14, 7, 3],
}

/**
 * Disks whose machine is not charged any more while they are. Which machine a disk was of is told by its name: the longest machine's name
 * that it begins with, in the same sub account.
 */
export const diskLeftBehind: BillDetector = {
  from: 'bill',
  detector: 'disk-left-behind',
  label: 'Disks that outlived their machine',
  thresholds: [days],
  lookThrough(bill) {
    const machines = machinesByPlace(bill)
    return (disk, settings) => {
      const kept = usesOf(disk, 'disk-gb-month')
      if (!kept.length || kept.every(use => unitsIn(use, 3) === 0n)) return []
      const back = settings.days as LookBack
      const machine = machineOf(disk, machines)
      if (!machine || disk.window.days < Math.min(back, 30) || runs(machine, back)) return []
      const gone = disk.uses.filter(use => within(use.cost, 30) !== 0n).map(use => ({ use, how: 'gone' as const, then: null }))
      const snapshot = snapshotFirst(disk)
      const finding = findingOf(disk, gone, {
        detector: diskLeftBehind.detector,
        title: `${disk.name} outlived ${machine.name}`,
        risk: 'some',
        instruction: { type: 'disk', deed: 'snapshot and delete' },
        oneOff: snapshot,
        minutesOfWork: 15,
        series: [
          {
            resourceId: machine.id,
            skus: machine.uses.filter(({ line }) => line?.meter === 'server-hour').map(({ sku }) => sku),
            label: `${machine.name} ran`,
            unit: 'h',
            threshold: { value: 0, label: `no hour for ${back} days` },
            said: `${machine.name} has not run for ${back} days and more.`,
          },
          {
            resourceId: disk.id,
            skus: kept.map(({ sku }) => sku),
            label: 'kept on the disk',
            unit: 'GB',
            threshold: null,
            said: `The disk is charged to the last day of the bill. ${snapshotSaid(snapshot)}`,
          },
        ],
      })
      return finding ? [finding] : []
    }
  },
  byHand: {
    steps: ({ resourceName }) => [
      `check whether anything has ${resourceName} attached, and whether its data is wanted`,
      'take a snapshot where it may be, which costs about half as much for each GB that is really used',
      `delete ${resourceName}`,
    ],
    undo: 'A deleted disk comes back only from a snapshot.',
  },
  says: open => `${open === 1 ? 'One disk has' : `${open} disks have`} outlived the machine.`,
}

const runs = (machine: BilledResource, back: LookBack) => usesOf(machine, 'server-hour').some(use => unitsIn(use, back) > 0n)
const placeOf = ({ provider, subAccountName }: BilledResource) => `${provider}\n${subAccountName}`

/** By provider and sub account the machines that ran at any time, by name; of two of one name the one that runs. */
function machinesByPlace({ resources }: Bill): Map<string, Map<string, BilledResource>> {
  const places = new Map<string, Map<string, BilledResource>>()
  for (const resource of resources) {
    const hours = usesOf(resource, 'server-hour')
    if (!hours.some(use => unitsBefore(use, 3) + unitsIn(use, 3) > 0n)) continue
    const own = places.get(placeOf(resource)) ?? new Map<string, BilledResource>()
    places.set(placeOf(resource), own)
    const other = own.get(resource.name)
    if (!other || !runs(other, 3)) own.set(resource.name, resource)
  }
  return places
}

/** The machine with the longest name that a disk's name begins with, up to a sign that parts words. */
function machineOf(disk: BilledResource, machines: ReadonlyMap<string, ReadonlyMap<string, BilledResource>>): BilledResource | null {
  const own = machines.get(placeOf(disk))
  if (!own) return null
  for (let end = disk.name.length - 1; end > 0; end--) {
    if (!/[-_./: ]/.test(disk.name[end]!)) continue
    const machine = own.get(disk.name.slice(0, end))
    if (machine && machine.id !== disk.id) return machine
  }
  return null
}
