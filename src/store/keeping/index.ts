export { Keeper } from './keeper';
export type { KeepIssue, ShelfItem } from './reader';
export { DESK_SETTINGS, type SaveState } from './desk';
export { Library, type Opening, type Shown, type TakingOver } from './library';
