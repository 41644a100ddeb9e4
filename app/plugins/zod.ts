/** The content security policy allows no code made at run time: schemas are interpreted. */
import { z } from 'zod'

export default defineNuxtPlugin(() => {
  z.config({ jitless: true })
})
