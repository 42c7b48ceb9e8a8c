import { route } from '../../http/route'

export default route(async ({ cube }) => {
  const { revision } = await cube.ask('facts', undefined)
  return { status: 'ready', revision }
})
