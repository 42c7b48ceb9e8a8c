declare module 'jstat' {
  const library: { jStat: { studentt: { inv: (probability: number, freedom: number) => number } } }
  export default library
}
