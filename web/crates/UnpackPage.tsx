import { useParams } from 'react-router'
import { totalBags, type CrateView } from '../../core/crates/crateView'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { formatSpan, plural } from '../ui/format'
import { HandScreen } from '../ui/HandScreen'
import { Trouble, Waiting } from '../ui/PageState'
import { useKept } from '../ui/useKept'
import { BagInHand } from './BagInHand'
import { currentBag, draftOfRecord, lastRecorded, plainDraft, type BagDraft } from './bagDraft'
import { BagStrip } from './BagStrip'
import { TotalsSentence } from './CratePage'
import { CountIn } from './CountIn'
import { PlaceFish } from './PlaceFish'
import { useCrate, useCrateWrites } from './useCrates'
import './crates.css'
import './unpack.css'

/** Unpacking: one bag after the other, then all fish into their tanks. */
export function UnpackPage() {
  const { crateId = '' } = useParams()
  const { crate, problem } = useCrate(crateId)
  if (!crate) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the crate" />
  return <Unpack crate={crate} />
}

function Unpack({ crate }: { crate: CrateView }) {
  const { recorder } = useSession()
  const { recordBags, undoBags, undoPlacement } = useCrateWrites(crate.id)
  const [lineId, chooseLine] = useKept<string>(`crate.line.${crate.id}`)
  const [kept, keepDraft] = useKept<BagDraft>(`crate.draft.${crate.id}`)
  const [isAllIn, setAllIn] = useKept<string>(`crate.allIn.${crate.id}`)
  const [isExtra, setExtra] = useKept<string>(`crate.extra.${crate.id}`)
  const bag = currentBag(crate, lineId)
  const last = lastRecorded(crate, recorder.id)
  // A draft for a bag that was recorded meanwhile, here or elsewhere, is spent.
  const draft = bag && (kept?.bagId === bag.id ? kept : plainDraft(bag))

  const record = (input: Parameters<typeof recordBags>[0], label: string): void => {
    recordBags(input, label)
    if (bag) chooseLine(bag.lineId)
    keepDraft(null)
  }
  const undo = (): void => {
    const first = last[0]
    if (!first) return
    undoBags(last.map(({ id }) => id), `undo ${undoLabel(last)}`)
    chooseLine(first.lineId)
    keepDraft(draftOfRecord(first))
  }
  const undoing = { label: last.length > 0 ? undoLabel(last) : null, undo }
  const { lastPlacement } = crate
  const undoingPlacement = lastPlacement?.staffId === recorder.id ? { label: `placing ${lastPlacement.fish}`, undo: () => undoPlacement(lastPlacement.key) } : undoing

  return (
    <HandScreen
      className="unpack"
      title={`Crate ${crate.number} · ${crate.supplier}`}
      aside={crate.packedAtMs && <span>packed {formatSpan(nowMs() - crate.packedAtMs)}</span>}
      back={{ to: `/crates/${crate.id}`, label: `back to crate ${crate.number}` }}
      entersFromLines
    >
      <BagStrip crate={crate} currentId={bag?.id ?? null} />
      <p className="totals">
        <TotalsSentence totals={totalBags(crate.bags)} hasList={crate.hasList} />
      </p>
      {!crate.hasList && !isAllIn && crate.closedAtMs === null ? (
        <CountIn crate={crate} undoing={undoing} onDone={() => setAllIn('yes')} />
      ) : isExtra && crate.closedAtMs === null ? (
        <CountIn crate={crate} undoing={undoing} isExtra onDone={() => setExtra(null)} />
      ) : bag && draft ? (
        <BagInHand key={bag.id} crate={crate} bag={bag} draft={draft} onDraft={keepDraft} onRecord={record} onLine={chooseLine} onExtra={() => setExtra('yes')} undoing={undoing} />
      ) : (
        <PlaceFish crate={crate} undoing={undoingPlacement} />
      )}
    </HandScreen>
  )
}

const undoLabel = (bags: { number: number }[]): string => (bags.length === 1 ? `bag ${bags[0]?.number}` : plural(bags.length, 'bag'))
