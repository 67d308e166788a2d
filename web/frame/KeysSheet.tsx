import { Sheet } from '../ui/Sheet'

const keys: readonly { where: string; keys: readonly (readonly [string, string])[] }[] = [
  { where: 'Everywhere', keys: [['/ or Ctrl K', 'find anything'], ['?', 'this sheet'], ['Esc', 'close what is open']] },
  { where: 'Unpack, a run, Rounds', keys: [['Enter, or a pedal that sends it', 'the orange action']] },
  {
    where: 'Unpack',
    keys: [['0–9', 'count'], ['↑ ↓', 'one more, one fewer'], ['d', 'one dead'], ['c b w f', 'clock, bag, water, fish: a concern'], ['s', 'the same for several bags'], ['o', 'other fish'], ['u', 'undo']],
  },
  { where: 'A run', keys: [['u', 'undo'], ['z', 'put the first alarm off']] },
  { where: 'Rounds', keys: [['Backspace', 'back to the tank before']] },
]

/** Every key there is. */
export default function KeysSheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Keys" isOpen onClose={onClose}>
      <div className="keys-sheet">
        {keys.map(({ where, keys: own }) => (
          <section key={where}>
            <h3>{where}</h3>
            <dl className="facts">
              {own.map(([key, what]) => (
                <div key={key}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Sheet>
  )
}
