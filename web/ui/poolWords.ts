import { lotDays } from '../../core/pools/lotAge'
import { perhapsFrom, type Pool } from '../../core/pools/poolsOf'
import type { StockView } from '../../core/ledger/stockView'
import { nowMs } from '../api/clock'
import { plural } from './format'

/** For how long a lot has been in the house. */
export function lotAge(lot: StockView, timeZone: string): string {
  const days = lotDays(lot, nowMs(), timeZone)
  return lot.isBeforeBooks ? 'before the books' : days === 0 ? 'today' : plural(days, 'day')
}

/** Which lots a kind of fish is of, in a few words: `7 lots, newest 3 days`, or the one lot and where it is from. */
export function lotsWords({ lots }: Pool, timeZone: string): string {
  const booked = lots.filter(({ quantity }) => quantity > 0)
  const [first] = booked
  if (first && booked.length === 1) return `lot ${first.lotCode} · ${first.isBeforeBooks && first.origin === 'before the books' ? '' : `${first.origin} · `}${lotAge(first, timeZone)}`
  const newest = booked.reduce((young, lot) => (lot.arrivedAtMs > young.arrivedAtMs ? lot : young), first ?? lots[0])
  return `${plural(booked.length, 'lot')}, newest ${lotAge(newest, timeZone)}`
}

/** Lots that somebody may mean: those that are booked, and those of which a fish may be left. */
export const lotsToName = ({ lots }: Pool): StockView[] => lots.filter(({ quantity, expected }) => quantity > 0 || expected >= perhapsFrom)
