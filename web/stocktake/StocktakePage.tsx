import { Navigate, useSearchParams } from 'react-router'
import type { StocktakeView } from '../../core/stocktake/stocktakeView'
import { Trouble, Waiting } from '../ui/PageState'
import { BeginStocktake } from './BeginStocktake'
import { CountTank } from './CountTank'
import { useStocktake } from './useStocktake'
import './stocktake.css'

/** Why and how the room is counted; while it is, the walk. */
export function StocktakePage() {
  const { stocktake, problem } = useStocktake()
  if (stocktake === undefined) return problem ? <Trouble problem={problem} /> : <Waiting what="the stocktake" />
  return stocktake && !stocktake.booked ? <Navigate to="/stocktake/walk" replace /> : <BeginStocktake last={stocktake} />
}

/** Counting the room, one tank after the other along the racks; whoever counted the others. */
export function CountWalkPage() {
  const { stocktake, problem } = useStocktake()
  if (stocktake === undefined) return problem ? <Trouble problem={problem} /> : <Waiting what="the stocktake" />
  return stocktake && !stocktake.booked ? <Walk key={stocktake.id} stocktake={stocktake} /> : <Navigate to="/stocktake" replace />
}

function Walk({ stocktake }: { stocktake: StocktakeView }) {
  const [search, setSearch] = useSearchParams()
  const { tanks } = stocktake
  const asked = tanks.findIndex(({ code }) => code === search.get('tank'))
  const open = tanks.findIndex(({ countedAtMs }) => countedAtMs === null)
  const at = asked >= 0 ? asked : open >= 0 ? open : tanks.length - 1
  const tank = tanks[at]
  if (!tank) return <Waiting what="the tanks" />
  const after = tanks.findIndex(({ countedAtMs }, index) => countedAtMs === null && index > at)
  const next = tanks[after >= 0 ? after : tanks.findIndex(({ countedAtMs }, index) => countedAtMs === null && index !== at)] ?? null
  const go = (code: string | null): void => setSearch(code === null ? {} : { tank: code }, { replace: true })
  return <CountTank key={tank.tankId} stocktake={stocktake} tank={tank} next={next} before={tanks[at - 1] ?? null} onGo={go} />
}
