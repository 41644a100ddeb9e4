/** The content security policy allows no code made at run time: schemas are interpreted. */
import { z } from 'zod'

z.config({ jitless: true })
