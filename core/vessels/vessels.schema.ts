/** What holds fish for a while: a bucket stands by itself, a box hangs in a tank and has its water. */
export const vesselKinds = ['bucket', 'box'] as const
export type VesselKind = (typeof vesselKinds)[number]
