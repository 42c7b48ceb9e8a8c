import { passedGb } from '../../demo/cloud-charges'
import type { CloudResource, Use } from '../../demo/inventory'
import { drawn } from '../../demo/random'
import { addDays, type Day } from '../../core/time/day'

export type Gateway = CloudResource & { use: Extract<Use, { kind: 'gateway' }> }

// more passes by day than by night
const shape = Array.from({ length: 24 }, (_, hour) => 0.35 + Math.max(0, Math.sin(((hour - 5) / 24) * 2 * Math.PI + 0.6)))

/** GB that passed in each hour; the hours of a day add up to what the bill has for it. @param until the first hour that is not over. */
export function hourlyReadings(gateway: Gateway, from: Day, to: Day, until: { day: Day; hour: number }): { hour: string; gb: number }[] {
  const readings: { hour: string; gb: number }[] = []
  for (let day = from; day < to && day <= until.day; day = addDays(day, 1)) {
    const micros = Math.round(passedGb(gateway, gateway.use, day) * 1_000_000)
    const weights = shape.map((weight, hour) => weight * (0.85 + 0.3 * drawn(gateway.id, day, hour)))
    const all = weights.reduce((a, b) => a + b, 0)
    let given = 0
    let passed = 0
    for (let hour = 0; hour < 24; hour++) {
      if (day === until.day && hour >= until.hour) break
      given += weights[hour]!
      const upTo = Math.round((micros * given) / all)
      readings.push({ hour: `${day}T${String(hour).padStart(2, '0')}:00:00Z`, gb: (upTo - passed) / 1_000_000 })
      passed = upTo
    }
  }
  return readings
}
