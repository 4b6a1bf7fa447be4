export { Keeper, type KeepIssue, type ShelfItem } from './keeper';
export { DESK_SETTINGS, type SaveState } from './desk';
export { Library, type Opening, type Shown, type TakingOver } from './library';
