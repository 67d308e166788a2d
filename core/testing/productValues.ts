/** What the register of agents asks for: all left open but for what a test says. */
export const productValues = (said: { name: string } & Record<string, string | number | null>): Record<string, string | number | null> => ({
  ...{ agent: null, substance: null, strengthMgPerMl: null, activePercent: null, strengthBasis: null, targetMgL: null, targetBasis: null, loMgL: null, hiMgL: null },
  ...{ partPercent: null, raiseAfterH: null, stepPercent: null, doneBelowMgL: null, bathMgL: null, bathMinutes: null, dipMgL: null, dipMinutes: null, cautions: null, note: null },
  ...said,
})
