interface Props {
  isOpened: boolean
  isCurrent?: boolean
  dead: number
  /** Its fish can hurt whoever opens it. */
  isDanger?: boolean
  label: string
}

/** A tied bag: water once it was looked at, dashed before; a cut corner with the number when some were dead; a thick red knot when its fish are venomous or poisonous. */
export function BagGlyph({ isOpened, isCurrent = false, dead, isDanger = false, label }: Props) {
  const body = 'M9 9 C4 13 3 17 3 21 q0 6 6 6 h8 q6 0 6 -6 C23 17 22 13 17 9 Z'
  return (
    <svg className={`bag-glyph${isOpened ? '' : ' is-unopened'}${isCurrent ? ' is-current' : ''}${isDanger ? ' is-danger' : ''}`} viewBox="0 0 26 30" role="img" aria-label={label}>
      {isOpened && <path className="water" d="M4 18 q3 -2.500 6 0 t6 0 t6 0 L22.500 21 q0 5 -5.500 5 h-8 q-5.500 0 -5.500 -5 Z" />}
      <path className="skin" d={body} />
      <path className="skin knot" d="M9 9 h8 M10 8 L7 3 M13 8 V4 M16 8 L19 3" />
      {dead > 0 && (
        <>
          <path className="harm" d="M13 18 h9 l3 3 v8 h-12 Z" />
          <text className="dead" x="19" y="27" textAnchor="middle">
            {dead}
          </text>
        </>
      )}
    </svg>
  )
}
