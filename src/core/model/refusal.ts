/** Why a command was refused. Nothing was changed. */
export type Refusal = {
  readonly code:
    | 'noSuchBudget'
    | 'noSuchAccount'
    | 'noSuchSource'
    | 'noSuchRatio'
    | 'noSuchRound'
    | 'noSuchItem'
    /** Lines or rows carry the tax. */
    | 'taxInUse'
    | 'budgetIsFrozen'
    /** All its months are closed under another budget. */
    | 'nothingToRule'
    | 'alreadyTakenIn'
    /** An adjustment is in the budget. */
    | 'alreadyApplied'
    /** What an adjustment changed is written into the budget, and does not go with it. */
    | 'writtenDown'
    | 'emptyName'
    | 'sidesDiffer'
    | 'brokenCalendar'
    /** A budget is made by this way of dividing the business, or has lines in the segment. */
    | 'segmentInUse'
    /** A row belongs to a segment that its budget does not have. */
    | 'noSuchSegment'
    /** A row of a schedule is what none can be; the fault's message is which (`RowFault`). */
    | 'absurdRow'
    /** A budget, a note or what is closed lies in a period that the new calendar has not. */
    | 'doesNotFitCalendar'
    /** What would come of it could be saved but not opened again: too long, too many, too large, or not as it must be. */
    | 'tooLong'
    | 'tooMany'
    | 'tooLarge'
    | 'notSound'
    /** The program itself failed; nothing was changed. */
    | 'broken'
    | 'readOnly';
  /** Where and how, for the last ones; `most` is the limit. */
  readonly fault?: { readonly path: string; readonly message: string; readonly most?: number };
};

/** Thrown within a command to stop it; never leaves `applyCommand`. */
export class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.code);
  }
}

export const refuse = (code: Refusal['code'], fault?: Refusal['fault']): never => {
  throw new Refused(fault ? { code, fault } : { code });
};
