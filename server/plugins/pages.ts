/** The page of the application: its content security policy allows its own scripts only. */
import { contentSecurityPolicy } from '../security/headers'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response) => {
    const html = typeof response.body === 'string' ? response.body : ''
    response.headers ??= {}
    delete response.headers['x-powered-by']
    response.headers['content-security-policy'] = contentSecurityPolicy(html)
  })
})
