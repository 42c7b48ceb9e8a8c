import type { Field } from '../../core/estimate/components/field'
import { inputText } from '../../core/estimate/sheet/input-text'

/** An input as the page shows it: the way in which it can be typed. */
export const shownInput = (field: Field, text: string): string => inputText(field, text)

/** The letter of a scenario's column: A is the estimate as it stands. */
export const columnLetter = (at: number) => String.fromCharCode(65 + at)
