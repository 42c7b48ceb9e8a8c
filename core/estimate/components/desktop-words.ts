import { variantsOf } from '../../ratecard/find-price'
import type { RateCard } from '../../ratecard/rate-card'
import type { Inputs } from './field'

/** What users ask of a machine, from little to most. */
export const asks = ['little', 'usual', 'much', 'most'] as const
type Asks = (typeof asks)[number]
/** Where a rate card says how many users a vCPU serves, by what they ask of it. */
export const usersOf: Record<Asks, string> = {
  little: 'usersPerVcpuLittle',
  usual: 'usersPerVcpuUsual',
  much: 'usersPerVcpuMuch',
  most: 'usersPerVcpuMost',
}
/** Users that a vCPU serves where the card does not say it (recalled from memory, no source). */
export const USERS_PER_VCPU = '4'

/** The choices of the fields, as they are stored. */
export const sharedMachines = 'shared machines'
export const machineEach = 'a machine each'
export const quietHours = 'machines of the quiet hours'
export const busyHours = 'machines of the busy hours'
export const anyNumber = 'a number of machines'
const pairOfServers = 'a pair of file servers'
const oneServer = 'one file server'
/** How many file servers a choice stands for. */
export const copiesOf: Record<string, string> = { [pairOfServers]: '2', [oneServer]: '1' }
/** Where profiles lie: on a class of file shares. */
export const onShare = (name: string) => `share, ${name}`
/** Where profiles may lie in a region. */
export const profilePlaces = (card: RateCard, region: string) => [
  pairOfServers,
  oneServer,
  ...variantsOf(card, 'share-gb-month', region).map(onShare),
]
/** Whether users share machines. */
export const isShared = (inputs: Inputs) => inputs.shape === sharedMachines

/** What a person asks of a machine, one step more where the fleet is sized carefully. */
export function countedAs({ work, oneUp }: Inputs): Asks {
  const at = asks.indexOf(work as Asks)
  return asks[Math.min(asks.length - 1, at + (oneUp === 'yes' ? 1 : 0))] ?? 'usual'
}
