import type { SessionState } from '#shared/api'

/** Whether a password is demanded, and whether it was given. */
export default defineEventHandler(async (event): Promise<SessionState> => ({
  passwordDemanded: isPasswordDemanded(),
  signedIn: await isSignedIn(event),
}))
