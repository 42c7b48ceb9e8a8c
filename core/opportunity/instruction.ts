import { stretchWords, type WeekStretch } from './measured/quiet-hours'

/**
 * What a service is told to do to a resource of a type; a setting is changed only from what it was when it was found. `schedule`: it is
 * stopped in these hours of every week, and started after them. `snapshot and delete`: it is deleted once a snapshot of it is there, or not
 * at all.
 */
export type Instruction = { type: string } & (
  | { deed: 'delete' | 'snapshot and delete' }
  | { deed: 'change class'; from: string; to: string; iops?: string | undefined; mbps?: string | undefined }
  | { deed: 'change size'; from: string; to: string }
  | { deed: 'schedule'; asleep: readonly WeekStretch[] }
  | { deed: 'tag'; key: string; value: string }
)

/** Whether a resource is gone afterwards. */
export const isDeletion = ({ deed }: Instruction): boolean => deed === 'delete' || deed === 'snapshot and delete'

/** What is changed from what to what; null for what changes no setting. */
export function settingOf(instruction: Instruction): { setting: 'class' | 'size'; from: string; to: string } | null {
  switch (instruction.deed) {
    case 'delete':
    case 'snapshot and delete':
    case 'schedule':
    case 'tag':
      return null
    case 'change class':
      return { setting: 'class', from: instruction.from, to: instruction.to }
    case 'change size':
      return { setting: 'size', from: instruction.from, to: instruction.to }
  }
}

/** A change in words: `delete it`, `change its class from «plain, old» to «plain»`. */
export function instructionWords(instruction: Instruction): string {
  switch (instruction.deed) {
    case 'delete':
      return 'delete it'
    case 'snapshot and delete':
      return 'take a snapshot of it, then delete it'
    case 'schedule':
      if (!instruction.asleep.length) return 'remove its hours, so that it runs all week'
      return `stop it every week ${stretchWords(instruction.asleep)} (UTC), and start it after that`
    case 'tag':
      return `set its tag ${instruction.key} to «${instruction.value}»`
    case 'change size':
      return `change its size from «${instruction.from}» to «${instruction.to}»`
    case 'change class': {
      const bought = [instruction.iops && `${instruction.iops} operations`, instruction.mbps && `${instruction.mbps} MB`]
        .filter(part => part)
        .join(' and ')
      return `change its class from «${instruction.from}» to «${instruction.to}»${bought ? `, with ${bought} a second bought` : ''}`
    }
  }
}

/** Whether and how a change can be undone. */
export function instructionUndo(instruction: Instruction): string {
  switch (instruction.deed) {
    case 'delete':
      return `A deleted ${instruction.type} cannot be restored.`
    case 'snapshot and delete':
      return `A new ${instruction.type} can be made of its snapshot at the provider, as long as that is kept.`
    case 'schedule':
      return 'The hours can be removed again: it then runs all week.'
    case 'tag':
      return 'The tag can be taken off again where it runs.'
    case 'change class':
      return `It can be changed back to «${instruction.from}».`
    case 'change size':
      return `It can be changed back to «${instruction.from}»; it restarts each time.`
  }
}

/**
 * What undoes a change; null where nothing here does. What was deleted cannot be restored from here, what was tagged is no saving, and
 * performance that was bought goes with its class: what it was before, nobody has kept.
 */
export function undoOf(instruction: Instruction): Instruction | null {
  switch (instruction.deed) {
    case 'delete':
    case 'snapshot and delete':
    case 'tag':
      return null
    case 'schedule':
      return { type: instruction.type, deed: 'schedule', asleep: [] }
    case 'change size':
      return { ...instruction, from: instruction.to, to: instruction.from }
    case 'change class':
      return instruction.iops !== undefined || instruction.mbps !== undefined
        ? null
        : { type: instruction.type, deed: 'change class', from: instruction.to, to: instruction.from }
  }
}
