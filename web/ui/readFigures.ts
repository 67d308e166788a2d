import { calculate, type Calculation } from '../../core/desk/calculations'
import type { Units } from './useUnits'
import { readDesk, shownBound } from './FigureField'

/**
 * Reads a form of the desk and computes it.
 * @param typed - what stands in the fields, by name; a choice nobody made is its first.
 * @param defaults - base units; what a figure is while nothing was typed.
 */
export function readFigures(calculation: Calculation, typed: Readonly<Record<string, string>>, units: Units, defaults: Readonly<Record<string, number>> = {}) {
  const { inputs } = calculation
  const words = Object.fromEntries(inputs.filter(({ options }) => options).map(({ name, options }) => [name, typed[name] ?? options?.[0] ?? '']))
  const figures = Object.fromEntries(inputs.filter(({ options }) => !options).map((field) => [field.name, readDesk(field, typed[field.name] ?? '', units) ?? defaults[field.name]]))
  const answer = calculate(calculation, figures, words, shownBound(units))
  const isMissing = (name: string): boolean => figures[name] === undefined
  const errorOf = (name: string): string | null => (answer.ok ? null : (answer.errors[name] ?? null))
  return {
    ...{ words, figures, answer },
    missing: inputs.filter(({ name }) => errorOf(name) && isMissing(name)).map(({ label }) => label),
    // A field nobody filled in is no mistake yet.
    problemOf: (name: string): string | null => (isMissing(name) ? null : errorOf(name)),
    valueOf: (name: string): string => words[name] ?? typed[name] ?? '',
  }
}
