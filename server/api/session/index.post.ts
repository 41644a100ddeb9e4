import { sessionBody } from '#shared/api'

export default defineEventHandler(async (event) => {
  const { password } = await readChecked(event, sessionBody)
  await signIn(event, password)
  return sendNoContent(event)
})
