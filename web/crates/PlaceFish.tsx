import { useState } from 'react'
import { Link } from 'react-router'
import type { CrateView } from '../../core/crates/crateView'
import { sentenceOf } from '../api/ApiProblem'
import { Button, ButtonLink } from '../ui/Button'
import { Notice, Problem } from '../ui/Notice'
import { plural } from '../ui/format'
import { Refused, type AgainstRule } from '../ui/RuleRefusal'
import type { Undoing } from './BagInHand'
import { sharesByTank, type TankShare } from './bagDraft'
import { outsideKept } from '../../core/species/keptIn'
import { useUnits } from '../ui/useUnits'
import { useCrateWrites, useWaiting } from './useCrates'

/** All bags are open: fish go to their tanks, one touch a tank or one for all that break no rule. */
export function PlaceFish({ crate, undoing }: { crate: CrateView; undoing: Undoing }) {
  const { placeBags } = useCrateWrites(crate.id)
  const { broken: waiting, isSettled } = useWaiting(crate.id)
  const [refused, setRefused] = useState<{ tankId: string | null; problem: unknown } | null>(null)
  const { shares, homeless } = sharesByTank(crate)
  const onBench = crate.bags.reduce((sum, { runId, inBag }) => sum + (runId === null ? 0 : inBag), 0)
  const fish = shares.reduce((sum, share) => sum + share.fish, 0)
  const sound = shares.filter(({ tankId }) => (waiting.get(tankId) ?? []).length === 0)
  const soundFish = sound.reduce((sum, share) => sum + share.fish, 0)
  const place = (tankId: string | null, label: string, against: AgainstRule | null = null): void => {
    setRefused(null)
    void placeBags(tankId, label, against).catch((problem: unknown) => setRefused({ tankId, problem }))
  }
  const inAll = refused !== null && (refused.tankId === null || !shares.some(({ tankId }) => tankId === refused.tankId))
  return (
    <div className="place-fish">
      <h2>{fish > 0 ? 'All bags are open. Place the fish.' : homeless.length > 0 ? 'Some fish have no tank yet.' : 'Every fish is out of its bag.'}</h2>
      {/* What speaks against a tank comes a moment later and would push the buttons below it from under a finger. */}
      <ul className={isSettled ? 'share-list' : 'share-list is-unsettled'}>
        {shares.map((share) => (
          <Share key={share.tankId} crate={crate} share={share} broken={(waiting.get(share.tankId) ?? []).map(({ why }) => why)} problem={refused?.tankId === share.tankId ? refused.problem : null} onPlace={(against) => place(share.tankId, `fish to ${share.code}`, against)} />
        ))}
      </ul>
      {onBench > 0 && (
        <Notice>
          {onBench} fish are <Link to="/bench">on the bench</Link> and go to their tank from there.
        </Notice>
      )}
      {homeless.length > 0 && (
        <Notice>
          {homeless.map((line) => line.species).join(', ')}: no tank planned. <Link to={`/crates/${crate.id}`}>Choose {plural(homeless.length, 'tank')}</Link>, then place.
        </Notice>
      )}
      {inAll && <Problem>{sentenceOf(refused.problem)}</Problem>}
      <div className="thumb-bar">
        <Button size="hand" className="undo" disabled={!undoing.label} onClick={undoing.undo}>
          undo <small>{undoing.label}</small>
        </Button>
        {fish > 0 ? (
          <Button look="act" size="hand" disabled={soundFish === 0} onClick={() => place(null, 'all fish as planned')}>
            <strong>{soundFish === fish ? `Place all ${fish} fish` : soundFish === 0 ? 'No tank takes its fish' : `Place ${soundFish} of ${fish} fish`}</strong>
            <small>{soundFish === fish ? `as planned, ${plural(shares.length, 'tank')}` : `${plural(shares.length - sound.length, 'tank breaks', 'tanks break')} a rule, see above`}</small>
          </Button>
        ) : (
          <ButtonLink look="act" size="hand" to={homeless.length > 0 ? `/crates/${crate.id}` : '/room'}>
            <strong>{homeless.length > 0 ? 'Choose tanks' : 'To the room'}</strong>
          </ButtonLink>
        )}
      </div>
    </div>
  )
}

/** The fish of one tank: what speaks against it stands below before anybody presses. */
function Share({ crate, share, broken, problem, onPlace }: { crate: CrateView; share: TankShare; broken: readonly string[]; problem: unknown; onPlace: (against: AgainstRule | null) => void }) {
  const units = useUnits().display
  const lines = crate.lines.filter(({ id }) => share.lineIds.includes(id))
  const outside = broken.length > 0 ? [] : [...new Set(lines.flatMap(({ species, kept, tankWater }) => outsideKept(species, kept, tankWater, units).map(({ why }) => why)))]
  // Bags of one kind share a vessel; another kind is added there by whoever decides it.
  const query = lines.filter(({ species }) => species === lines[0]?.species).map(({ id }) => `line=${id}`).join('&')
  return (
    <li>
      <span>
        <strong>{share.code}</strong> {share.fish} {[...new Set(share.species)].join(', ')}
      </span>
      <ButtonLink size="hand" to={`/bench/compare?${query}`} aria-label={`acclimate ${share.species.join(', ')}`}>
        acclimate
      </ButtonLink>
      <Button size="hand" onClick={() => onPlace(null)}>
        place
      </Button>
      {problem === null && broken.length > 0 && (
        <Notice level="watch">
          Breaks a rule: {broken.join('; ')}. Choose another tank under <Link to={`/crates/${crate.id}/tanks`}>Tanks</Link>, or press “place” to decide it.
        </Notice>
      )}
      {outside.map((why) => (
        <Notice key={why} level="watch">
          {why}.
        </Notice>
      ))}
      <Refused problem={problem} mayRescue onAgain={onPlace} />
    </li>
  )
}
