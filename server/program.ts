import { basename, dirname, join } from 'node:path'

const here = import.meta.filename ?? __filename

/**
 * How node runs another program of the server: from source through tsx, or the built one that lies beside this file.
 * @param source - path below `server/`, without its ending, such as `crates/solveMain`.
 */
export const serverProgram = (source: string): { file: string; execArgv: string[] } =>
  here.endsWith('.ts') ? { file: join(dirname(here), `${source}.ts`), execArgv: ['--import', 'tsx'] } : { file: join(dirname(here), `${basename(source)}.js`), execArgv: [] }
