import { Allocation } from './allocation'
import { Connections } from './connections'
import { Estimates } from './estimates'
import { Invoices } from './invoices'
import { Jobs } from './jobs'
import { jumpTo } from './jump'
import { Loads } from './loads'
import { Maintenance } from './maintenance'
import { Measurements } from './measurements'
import { Measures } from './measures'
import { Persons } from './persons'
import { RateCards } from './rate-cards'
import { Resources } from './resources'
import { Savings } from './savings'
import { Sentences } from './sentences'
import { Sources } from './sources'
import { Spend } from './spend'
import { SpendSettings } from './spend-settings'
import { StandingOrderEngine } from './standing-orders'
import type { EngineWork } from './engine-work'

/** All that can be asked of the server, for whoever asks: what they may not see is in none of it. */
export const enginesFor = (work: EngineWork) => ({
  allocation: new Allocation(work),
  connections: new Connections(work),
  estimates: new Estimates(work),
  invoices: new Invoices(work),
  jobs: new Jobs(work),
  jump: (text: string) => jumpTo(work, text),
  loads: new Loads(work),
  maintenance: new Maintenance(work),
  measurements: new Measurements(work),
  measures: new Measures(work),
  persons: new Persons(work),
  rateCards: new RateCards(work),
  resources: new Resources(work),
  revision: async () => (await work.seen.ask('facts', undefined)).revision,
  savings: new Savings(work),
  sentences: new Sentences(work),
  sources: new Sources(work),
  standingOrders: new StandingOrderEngine(work),
  spend: new Spend(work),
  spendSettings: new SpendSettings(work),
})
export type Engines = ReturnType<typeof enginesFor>
