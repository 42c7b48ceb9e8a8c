import { Expected } from '../problems/problem'
import type { RateCard } from '../../core/ratecard/rate-card'
import type { Lookup } from '../../core/spend/lookup'
import type { BusinessMeasure } from '../../core/unit-cost/business-measure'
import type { Deed } from '../../core/opportunity/deeds'
import type { Instruction } from '../../core/opportunity/instruction'
import type { OutsideEvent, Reading, Resource } from '../../core/opportunity/opportunity'

/** A call to an outside service that did not succeed. `sure` tells whether the other side certainly did nothing. */
export class ConnectorFailed extends Expected {
  /**
   * @param status what the other side answered with, where it did.
   * @param waitSeconds how long the other side wants to be left alone, where it is asked too much.
   */
  constructor(
    message: string,
    readonly sure: boolean,
    readonly status: number | null = null,
    readonly waitSeconds: number | null = null,
  ) {
    super(message)
  }
}

/**
 * How a resource is now: what it is set to, such as its class or size; its locks with who set them and why, what is planned for it and
 * how that went the last time.
 */
export type Condition = {
  /** Its type in the inventory, where the service says it. */
  type: string | null
  /** What it is called and where it is, where the service says it. */
  name: string | null
  region: string | null
  account: string | null
  /** Its own tags. */
  tags: Record<string, string>
  status: string
  /** Such as `class`, `size`. */
  settings: Record<string, string>
  locks: { against: 'changes' | 'deletion'; why: string; by: string; since: string }[]
  plan: {
    does: 'stop' | 'start'
    when: string
    last: { at: string; outcome: 'done' | 'refused' | 'nothing to do'; why: string | null } | null
  }[]
}

/** What is measured of resources: `what` in words. */
export type Metric = { metric: string; what: string; unit: string }

/** A resource as it is spoken of to a service. */
export type ResourceName = Pick<Resource, 'type' | 'id'>

/** What became of an action: done, at the service's own time; refused, and why; or it never came. */
export type ActionOutcome = { outcome: 'done'; at: string } | { outcome: 'refused'; why: string } | { outcome: 'not received' }

/** What an outside service can be asked for or told to do. Each is there or not, as its kind of connector has it. */
export type Capabilities = {
  bill: {
    /** A month's charges to date as a FOCUS file, gzipped. */
    month: (month: string) => Promise<Uint8Array>
  }
  'rate card': {
    /** The newest that was published. */
    newest: () => Promise<RateCard>
  }
  inventory: {
    /** The resources of a type. */
    resources: (type: string) => Promise<Resource[]>
    /** How a resource is; null for one that is not there. */
    condition: (id: string) => Promise<Condition | null>
  }
  measurements: {
    /** What is measured of a type: metrics with their units. */
    metrics: (type: string) => Promise<Metric[]>
    /** A metric of a resource, hour by hour; `to` exclusive. */
    readings: (resource: ResourceName, metric: string, from: string, to: string) => Promise<Reading[]>
    /** A metric of all resources of a type on a day: 24 hours of each, null for one that was not measured or is not over. */
    ofDay: (type: string, metric: string, day: string) => Promise<{ id: string; hours: (number | null)[] }[]>
  }
  events: {
    /** What has happened since a day. */
    since: (day: string) => Promise<OutsideEvent[]>
  }
  actions: {
    /** What can be done to resources of a type. */
    of: (type: string) => Promise<Deed[]>
    /**
     * @param requestKey the same for every try of one approved action: it is acted on once.
     * @returns when it was done, by the service's own time.
     */
    carryOut: (instruction: Instruction, id: string, requestKey: string) => Promise<{ at: string }>
    /** What became of what was sent with a key. */
    outcomeOf: (requestKey: string) => Promise<ActionOutcome>
  }
  register: {
    /** Tables that say something of a dimension's values, by name. */
    lookups: () => Promise<{ name: string; lookup: Lookup }[]>
    /** Names of business measures. */
    measures: () => Promise<string[]>
    /** What was counted of a measure on days (or in months) since one. */
    measuredSince: (measure: string, day: string) => Promise<Omit<BusinessMeasure, 'name'>>
  }
}
export type Capability = keyof Capabilities
export const capabilities: readonly Capability[] = ['bill', 'rate card', 'inventory', 'measurements', 'events', 'actions', 'register']

/** How much time a played service can be told to let pass. */
export type PlayedTime = 'day' | 'week' | 'month'

/** An outside service as it is reached through one connection. */
export type Connector = {
  /** The connection's name. */
  name: string
  /** Whose charges, prices and resources it is about. */
  provider: string
  /** Asks for the service's own time: that it answers is the test of a connection. */
  now: () => Promise<string>
  /** Lets time pass, where time there is played. */
  pass?: (time: PlayedTime) => Promise<string>
  can: Partial<Capabilities>
}

/** How a connection is reached. */
export type ConnectionSettings = { name: string; provider: string; address: string; secret: string | null }

/** One kind of outside service. */
export type ConnectorKind = {
  kind: string
  label: string
  /** What its address looks like, and what is to be known of it. */
  help: string
  /** What it can do. */
  can: readonly Capability[]
  /** Asks whose service it is. @throws ConnectorFailed */
  whose: (settings: Omit<ConnectionSettings, 'provider'>) => Promise<string>
  connect: (settings: ConnectionSettings) => Connector
}
