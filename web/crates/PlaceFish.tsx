import { Link } from 'react-router'
import type { CrateView } from '../../core/crates/crateView'
import { plural } from '../ui/format'
import type { Undoing } from './BagInHand'
import { sharesByTank } from './bagDraft'
import { outsideKept } from '../../core/species/keptIn'
import { useUnits } from '../ui/useUnits'
import { useCrateWrites } from './useCrates'

/** All bags are open: fish go to their tanks, one touch a tank or one for all. */
export function PlaceFish({ crate, undoing }: { crate: CrateView; undoing: Undoing }) {
  const { placeBags } = useCrateWrites(crate.id)
  const { shares, homeless } = sharesByTank(crate)
  const units = useUnits().display
  const outsideOf = (lineIds: readonly string[]): string[] => crate.lines.filter(({ id }) => lineIds.includes(id)).flatMap(({ species, kept, tankWater }) => outsideKept(species, kept, tankWater, units).map(({ why }) => why))
  const onBench = crate.bags.reduce((sum, { runId, inBag }) => sum + (runId === null ? 0 : inBag), 0)
  const fish = shares.reduce((sum, share) => sum + share.fish, 0)
  return (
    <div className="place-fish">
      <h2>{fish > 0 ? 'All bags are open. Place the fish.' : homeless.length > 0 ? 'Some fish have no tank yet.' : 'Every fish is out of its bag.'}</h2>
      <ul className="share-list">
        {shares.map((share) => (
          <li key={share.tankId}>
            <span>
              <strong>{share.code}</strong> {share.fish} {share.species.join(', ')}
            </span>
            <Link className="hand-button" to={`/bench/compare?line=${share.lineIds[0]}`} aria-label={`acclimate ${share.species.join(', ')}`}>
              acclimate
            </Link>
            <button type="button" className="hand-button" onClick={() => placeBags(share.tankId, `fish to ${share.code}`)}>
              place
            </button>
            {[...new Set(outsideOf(share.lineIds))].map((why) => (
              <p key={why} className="notice is-watch">
                {why}.
              </p>
            ))}
          </li>
        ))}
      </ul>
      {onBench > 0 && (
        <p className="notice">
          {onBench} fish are <Link to="/bench">on the bench</Link> and go to their tank from there.
        </p>
      )}
      {homeless.length > 0 && (
        <p className="notice">
          {homeless.map((line) => line.species).join(', ')}: no tank planned. <Link to={`/crates/${crate.id}`}>Choose {plural(homeless.length, 'tank')}</Link>, then place.
        </p>
      )}
      <div className="thumb-bar">
        <button type="button" className="hand-button undo" disabled={!undoing.label} onClick={undoing.undo}>
          undo <small>{undoing.label}</small>
        </button>
        {fish > 0 ? (
          <button type="button" className="hand-button act" onClick={() => placeBags(null, 'all fish as planned')}>
            <strong>Place all {fish} fish</strong>
            <small>as planned, {plural(shares.length, 'tank')}</small>
          </button>
        ) : (
          <Link className="hand-button act" to={homeless.length > 0 ? `/crates/${crate.id}` : '/room'}>
            <strong>{homeless.length > 0 ? 'Choose tanks' : 'To the room'}</strong>
          </Link>
        )}
      </div>
    </div>
  )
}
