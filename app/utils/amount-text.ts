export { addTexts, divideText, roundText, sizeText, subtractTexts } from '../../core/money/amount-text'
