import { useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import type { Look } from '../../core/crates/crates.schema'
import type { BagView, CrateView } from '../../core/crates/crateView'
import { releaseStep } from '../../core/crates/triage'
import { Button } from '../ui/Button'
import { plural } from '../ui/format'
import { useGoOn } from '../ui/useGoOn'
import { HandlingNotes } from '../ui/HandlingNotes'
import { Sheet } from '../ui/Sheet'
import { bagsAlike, toRecord, type BagDraft } from './bagDraft'
import { BagFields, withDead, withLook } from './BagFields'
import { BagPhotos } from './BagPhotos'
import { FirstStep, useTriage } from './TriageLine'

export interface Undoing {
  /** What an undo would take back; null when there is nothing. */
  label: string | null
  undo: () => void
}

interface Props {
  crate: CrateView
  bag: BagView
  draft: BagDraft
  onDraft: (draft: BagDraft) => void
  onRecord: (input: ReturnType<typeof toRecord>, label: string) => void
  onLine: (lineId: string) => void
  /** A bag that no line of the list speaks of. */
  onExtra: () => void
  undoing: Undoing
}

/** The bag in hand: count, dead, four looks, readings; below, in the thumb's reach, undo, record, the same. */
export function BagInHand({ crate, bag, draft, onDraft, onRecord, onLine, onExtra, undoing }: Props) {
  const [sheet, setSheet] = useState<'lines' | 'same' | null>(null)
  const page = useRef<HTMLDivElement>(null)
  const line = crate.lines.find((each) => each.id === bag.lineId)
  const alike = bagsAlike(crate, bag)
  const goOn = useGoOn()
  const triage = useTriage(crate, line, draft)
  const isRelease = triage?.step === releaseStep
  const change = (part: Partial<BagDraft>): void => onDraft({ ...draft, ...part })
  const die = (by: 1 | -1): void => onDraft(withDead(draft, by))
  const look = (concern: Look): void => onDraft(withLook(draft, concern))
  const record = (count: number): boolean => {
    // A figure that cannot be right is not dropped in silence: the person is taken to it.
    const wrong = page.current?.querySelector<HTMLInputElement>('[aria-invalid="true"]')
    if (wrong) return void wrong.focus(), false
    const bags = alike.slice(0, count)
    setSheet(null)
    onRecord(toRecord(draft, bags.map(({ id }) => id)), count === 1 ? `bag ${bag.number}` : `${count} bags of ${line?.species ?? 'one line'}`)
    return true
  }
  // This bag alone, at once; the others wait for it.
  const releaseNow = (): void => {
    if (record(1)) goOn(`/bench/compare?line=${bag.lineId}&bag=${bag.id}`)
  }
  useBagKeys({ page, change, draft, die, look, undoing, openSheet: setSheet, canSame: alike.length > 1, isSheetOpen: sheet !== null })

  return (
    <div className="bag-in-hand" ref={page}>
      <div className="bag-name">
        <h2>{line?.species}</h2>
        <p>
          bag {bag.number} · list says {bag.listed} · {line?.tank ? `goes to ${line.tank.code}` : 'no tank yet'}
        </p>
        <Button size="hand" className="other-line" onClick={() => setSheet('lines')}>
          other fish
        </Button>
        {line && <HandlingNotes of={[line]} />}
      </div>
      <BagFields draft={draft} onChange={onDraft} photos={<BagPhotos crateId={crate.id} bag={bag} />} />
      <div className="thumb-bar">
        <FirstStep triage={triage} onRelease={releaseNow} />
        <Button size="hand" className="undo" disabled={!undoing.label} onClick={undoing.undo}>
          undo <small>{undoing.label}</small>
        </Button>
        <Button look={isRelease ? 'plain' : 'act'} size="hand" autoFocus onClick={() => record(1)}>
          <strong>{draft.alive} alive, next bag</strong>
          <small>{remark(draft, bag)}</small>
        </Button>
        <Button size="hand" className="same" disabled={alike.length < 2} onClick={() => setSheet('same')}>
          ×n the same
        </Button>
      </div>
      <LineSheet crate={crate} isOpen={sheet === 'lines'} onClose={() => setSheet(null)} onLine={(lineId) => (setSheet(null), onLine(lineId))} onExtra={onExtra} />
      <Sheet title={`How many bags like this one? ${draft.alive} alive${draft.dead > 0 ? `, ${draft.dead} dead` : ''} each`} isOpen={sheet === 'same'} onClose={() => setSheet(null)}>
        <div className="number-choice">
          {alike.slice(1).map(({ id }, index) => (
            <Button key={id} size="hand" onClick={() => record(index + 2)}>
              {index + 2}
            </Button>
          ))}
        </div>
      </Sheet>
    </div>
  )
}

function remark({ dead, alive, concerns, mishap }: BagDraft, { listed }: BagView): string {
  const off = alive + dead - listed
  const parts = [mishap ?? '', dead > 0 ? `${dead} dead` : '', off < 0 ? `${-off} short` : '', off > 0 ? `${off} extra` : '', concerns.length > 0 ? `look at: ${concerns.join(', ')}` : '']
  return parts.filter(Boolean).join(' · ') || 'as listed'
}

function LineSheet({ crate, isOpen, onClose, onLine, onExtra }: { crate: CrateView; isOpen: boolean; onClose: () => void; onLine: (lineId: string) => void; onExtra: () => void }) {
  const lines = crate.lines
    .map((line) => ({ line, shut: crate.bags.filter((bag) => bag.lineId === line.id && !bag.record).length }))
    .filter(({ shut }) => shut > 0)
  return (
    <Sheet title="Which fish are in your hand?" isOpen={isOpen} onClose={onClose}>
      <ul className="line-choice">
        {lines.map(({ line, shut }) => (
          <li key={line.id}>
            <Button size="hand" onClick={() => onLine(line.id)}>
              <strong>{line.species}</strong>
              <small>
                {plural(shut, 'bag')} shut{line.tank ? `, to ${line.tank.code}` : ''}
              </small>
            </Button>
          </li>
        ))}
        <li>
          <Button size="hand" onClick={onExtra}>
            <strong>A bag that is not on the list</strong>
            <small>counted in as a line of its own</small>
          </Button>
        </li>
      </ul>
    </Sheet>
  )
}

interface Keys {
  page: React.RefObject<HTMLDivElement | null>
  change: (part: Partial<BagDraft>) => void
  draft: BagDraft
  die: (by: 1 | -1) => void
  look: (look: Look) => void
  undoing: Undoing
  openSheet: (sheet: 'lines' | 'same') => void
  canSame: boolean
  isSheetOpen: boolean
}

/** Keys for a bench with a keyboard, beside Enter for the orange action: digits count, d dead, c b w f the looks, s same, o other fish, u undo. */
function useBagKeys({ page, change, draft, die, look, undoing, openSheet, canSame, isSheetOpen }: Keys): void {
  const enabled = { enabled: !isSheetOpen }
  useHotkeys('0,1,2,3,4,5,6,7,8,9', (event) => {
    const figure = page.current?.querySelector<HTMLInputElement>('input.figure')
    event.preventDefault()
    figure?.focus()
    figure?.setSelectionRange(9, 9)
    change({ alive: Number(event.key) })
    // The figure is selected on focus; the next digit must follow this one.
    requestAnimationFrame(() => figure?.setSelectionRange(figure.value.length, figure.value.length))
  }, enabled)
  useHotkeys('up,down', (event, { keys }) => {
    event.preventDefault()
    change({ alive: Math.max(0, draft.alive + (keys?.includes('up') ? 1 : -1)) })
  }, enabled)
  useHotkeys('d', () => die(1), enabled)
  useHotkeys('c', () => look('clock'), enabled)
  useHotkeys('b', () => look('bag'), enabled)
  useHotkeys('w', () => look('water'), enabled)
  useHotkeys('f', () => look('fish'), enabled)
  useHotkeys('u', () => undoing.undo(), { enabled: !isSheetOpen && undoing.label !== null })
  useHotkeys('s', () => openSheet('same'), { enabled: !isSheetOpen && canSame })
  useHotkeys('o', () => openSheet('lines'), enabled)
}
