import type { SalinityDoubt } from '../../core/units/salinityDoubt'

/** Asks which scale a salinity was typed on; one touch answers. */
export function SalinityDoubtRow({ doubt, onTake }: { doubt: SalinityDoubt; onTake: (ppt: number) => void }) {
  return (
    <span className="salinity-doubt" role="alert">
      <small>{doubt.question}</small>
      {doubt.choices.map(({ label, ppt }) => (
        <button key={label} type="button" className="button" onClick={() => onTake(ppt)}>
          {label}
        </button>
      ))}
    </span>
  )
}
