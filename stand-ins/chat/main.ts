import { chatServer } from './server'

chatServer().http.listen(Number(process.env.PORT ?? 3028), process.env.HOST ?? '127.0.0.1')
