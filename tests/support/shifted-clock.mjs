// Loaded before the server: its clock, its threads' and that of its embedded database, set forth or back by CLOCK_OFFSET_MS.
const offset = Number(process.env.CLOCK_OFFSET_MS ?? 0)
if (offset) {
  const RealDate = Date
  globalThis.Date = class extends RealDate {
    constructor(...given) {
      if (given.length) super(...given)
      else super(RealDate.now() + offset)
    }
    static now() {
      return RealDate.now() + offset
    }
  }
}
