/** What a service is told to do to a resource of a type; a setting is changed only from what it was when it was found. */
export type Instruction = { type: string } & (
  | { deed: 'delete' }
  | { deed: 'change class'; from: string; to: string; iops?: string | undefined; mbps?: string | undefined }
  | { deed: 'change size'; from: string; to: string }
)

/** What is changed from what to what; null for what is deleted. */
export const settingOf = (instruction: Instruction): { setting: 'class' | 'size'; from: string; to: string } | null =>
  instruction.deed === 'delete'
    ? null
    : { setting: instruction.deed === 'change class' ? 'class' : 'size', from: instruction.from, to: instruction.to }

/** A change in words: `delete`, `change its class from «plain, old» to «plain»`. */
export function instructionWords(instruction: Instruction): string {
  const setting = settingOf(instruction)
  if (!setting) return 'delete it'
  const bought =
    instruction.deed === 'change class'
      ? [instruction.iops && `${instruction.iops} operations`, instruction.mbps && `${instruction.mbps} MB`]
          .filter(part => part)
          .join(' and ')
      : ''
  return `change its ${setting.setting} from «${setting.from}» to «${setting.to}»${bought ? `, with ${bought} a second bought` : ''}`
}

/** Whether and how a change can be undone. */
export function instructionUndo(instruction: Instruction): string {
  const setting = settingOf(instruction)
  if (!setting) return `A deleted ${instruction.type} cannot be brought back.`
  return `It can be changed back to «${setting.from}»${instruction.deed === 'change size' ? '; each time it starts anew' : ''}.`
}
