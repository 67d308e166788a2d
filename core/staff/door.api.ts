import { named, plain } from '../commands/declare'

/** What opens a device and says who records on it. Every first screen asks here, so nothing that checks an input stands with it. */
export const doorApi = named({
  /** state of this device, people, the server's clock */
  session: plain({ method: 'get', path: '/api/session', access: 'public' }),
  /** once, in a room that nobody made yet: name, passphrase, pin, roomName, timeZone */
  firstLead: plain({ method: 'post', path: '/api/session/first-lead', access: 'public' }),
  /** name, passphrase: opens the device for 30 days */
  signIn: plain({ method: 'post', path: '/api/session', access: 'public' }),
  /** staffId, pin: that person may record here */
  identify: plain({ method: 'post', path: '/api/session/recording', access: 'device' }),
  /** closes the device */
  signOut: plain({ method: 'delete', path: '/api/session', access: 'public' }),
})
