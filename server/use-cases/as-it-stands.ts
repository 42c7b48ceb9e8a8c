import { dayText } from '../../shared/words/days'
import { actingOn } from '../../core/opportunity/acting'
import { deeds } from '../../core/opportunity/deeds'
import { detectorOf } from '../../core/opportunity/detectors'
import { settingOf, type Instruction } from '../../core/opportunity/instruction'
import type { Opportunity } from '../../core/opportunity/opportunity'
import { capabilityOf } from '../connectors/connect'
import type { Condition, Connector, ResourceName } from '../connectors/connector'

/**
 * Asks the service how a resource is that is to be acted on: whether it is there, as it was found, and nobody has locked it.
 * @returns the resource, and why it is to be left alone; null where nothing speaks against it.
 */
export async function asItStands(connector: Connector, body: Opportunity): Promise<{ resource: ResourceName | null; why: string | null }> {
  const { instruction } = actingOn(body)!
  const inventory = capabilityOf(connector, 'inventory')
  const detector = detectorOf(body.detector)
  const resource =
    detector.from === 'connection'
      ? ((await inventory.resources(detector.needs.inventory)).find(({ id }) => id === body.resourceId) ?? null)
      : { type: instruction.type, id: body.resourceId }
  const condition = await inventory.condition(body.resourceId)
  const leave = (why: string | null) => ({ resource, why })
  if (!resource || !condition) return leave(`it is not there any more, somebody else has ${deeds.delete.past} it`)
  const why = whyNotTo(instruction, condition)
  if (why) return leave(why)
  const [planned] = condition.plan
  return leave(instruction.deed === 'schedule' && planned ? `it has hours of its own: ${planned.does} ${planned.when}` : null)
}

/** Why a resource cannot be told something as it is: somebody has locked it, or it is set to something else; null where nothing is. */
export function whyNotTo(instruction: Instruction, condition: Condition): string | null {
  const lock = condition.locks.find(({ against }) => against === deeds[instruction.deed].lock)
  if (lock) return `${lock.by} has locked it against ${lock.against} since ${dayText(lock.since)}: ${lock.why}`
  const setting = settingOf(instruction)
  const is = setting && condition.settings[setting.setting]
  return setting && is !== setting.from ? `it is ${is === undefined ? 'of another kind' : `«${is}»`} now, not «${setting.from}»` : null
}
