import { registerServer } from './server'

const server = registerServer()
server.listen(Number(process.env.PORT || 3005), process.env.HOST || '127.0.0.1')
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.close(() => process.exit(0)))
