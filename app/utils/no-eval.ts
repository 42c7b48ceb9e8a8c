import { z } from 'zod'

// the page may not make code out of text: schemas are not compiled, and it is not tried
z.config({ jitless: true })
