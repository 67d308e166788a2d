/** Something that can be gone to. */
export interface FindHit {
  kind: 'tank' | 'lot' | 'crate' | 'species'
  /** What it is called. */
  label: string
  /** One line about it. */
  detail: string
  /** Page of the interface where it is. */
  to: string
}
export interface FindAnswer {
  hits: FindHit[]
}
