import { useSession } from '../api/session'
import { PinPad } from './PinPad'
import { Sheet } from './Sheet'

/** The PIN once more, for what a tablet that was left open must not do. */
export default function PinSheet({ isOpen, onClose, onGiven }: { isOpen: boolean; onClose: () => void; onGiven?: () => void }) {
  const { recorder, confirmPin } = useSession()
  return (
    <Sheet title={`PIN of ${recorder.name}`} isOpen={isOpen} onClose={onClose}>
      <p>Asked for again: it was changed, or given more than ten minutes ago and this is for leads alone. What you entered waits for it.</p>
      <PinPad
        label="go on"
        onPin={async (pin) => {
          await confirmPin(pin)
          onGiven?.()
        }}
      />
    </Sheet>
  )
}
