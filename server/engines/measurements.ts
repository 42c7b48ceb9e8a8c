import type { measurements } from '../operations/measurements'
import type { QueryOf } from '../operations/operation'
import type { TakenIn } from '../imports/take-in'
import { dropMeasurements, measurementsState, takeMeasurements } from '../use-cases/measurements'
import type { EngineWork } from './engine-work'

/** What is measured of resources, as files tell it. */
export class Measurements {
  constructor(private readonly work: EngineWork) {}

  state() {
    return measurementsState(this.work)
  }

  take({ file }: QueryOf<(typeof measurements)['take']>, receive: (name: string, path: string) => Promise<TakenIn>) {
    return takeMeasurements(this.work, file, receive)
  }

  drop() {
    return dropMeasurements(this.work)
  }
}
