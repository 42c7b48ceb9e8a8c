// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- every program that reads this needs the types
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat'

/** The value below which Student's t with so many degrees of freedom lies with a probability. */
export const tQuantile = (probability: number, freedom: number): number => jstat.jStat.studentt.inv(probability, freedom)
