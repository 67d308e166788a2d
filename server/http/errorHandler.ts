import type { ErrorRequestHandler } from 'express'
import type { Logger } from 'pino'
import { wordFigures, type DisplayUnits } from '../../core/units/units'
import { toProblem } from './toProblem'

/** Addresses that are secrets: logs are read by more people than know them. */
const withoutSecret = (path: string): string => path.replace(/^\/api\/calendar\/.+/, '/api/calendar/…')

/** The only place that turns an error into an answer. */
export function errorHandler(log: Logger, units: () => DisplayUnits): ErrorRequestHandler {
  // Express tells error handlers by their four parameters.
  return (error: unknown, request, response, _next) => {
    const problem = toProblem(error)
    if (problem.code === 'internal') log.error({ err: error, path: withoutSecret(request.path) }, 'request failed')
    response.status(problem.status).type('application/problem+json').send(wordFigures(JSON.stringify(problem.toBody()), units))
  }
}
