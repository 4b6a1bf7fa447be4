/** Why a command was refused. Nothing was changed. */
export type Refusal = {
  readonly code:
    | 'noSuchBudget'
    | 'noSuchAccount'
    | 'noSuchSource'
    | 'budgetIsFrozen'
    | 'alreadyTakenIn'
    | 'emptyName'
    | 'sidesDiffer'
    | 'brokenCalendar'
    /** A budget is made by this way of dividing the business, or has lines in the segment. */
    | 'segmentInUse'
    | 'readOnly';
};

/** Thrown within a command to stop it; never leaves `applyCommand`. */
export class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.code);
  }
}

export const refuse = (code: Refusal['code']): never => {
  throw new Refused({ code });
};
