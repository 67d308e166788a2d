import { TestEnvironment } from 'jest-environment-jsdom'

/**
 * A page without a browser, for tests of what forms say: no layout, no pictures, but the real interface, and `fetch`
 * reaches whatever server a test named in `connectTo`.
 */
export default class JsdomEnvironment extends TestEnvironment {
  constructor(config, context) {
    super(config, context)
    let server = { url: 'http://127.0.0.1:9', cookie: '' }
    Object.assign(this.global, {
      connectTo: (url, cookie) => (server = { url, cookie }),
      // The interface asks by path; whole addresses are a test's own.
      fetch: (path, { headers, ...init } = {}) => (path.startsWith('/') ? fetch(server.url + path, { ...init, headers: { ...headers, Cookie: server.cookie } }) : fetch(path, { headers, ...init })),
      // Node's own: what jsdom has instead does not go with Node's fetch.
      ...{ AbortController, AbortSignal, Blob, Headers, Request, Response, TextDecoder, TextEncoder, structuredClone, setImmediate, clearImmediate },
      matchMedia: (media) => ({ media, matches: false, addEventListener: () => undefined, removeEventListener: () => undefined, addListener: () => undefined, removeListener: () => undefined }),
      scrollTo: () => undefined,
      ResizeObserver: class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
      // What other devices write is for the browser tests.
      EventSource: class {
        close() {}
      },
    })
    this.global.Element.prototype.scrollIntoView = () => undefined
  }

  // The builds that Node would take, not those for bundlers.
  exportConditions() {
    return ['node', 'require', 'default']
  }
}
