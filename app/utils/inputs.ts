import type { Field } from '../../core/estimate/components/field'
import { inputText } from '../../core/estimate/input-text'

/** An input as the page shows it, in the reader's format. */
export const shownInput = (field: Field, text: string): string => inputText(field, text, quantity)

/** The letter of a scenario's column: A is the estimate as it stands. */
export const columnLetter = (at: number) => String.fromCharCode(65 + at)
