export {
  at,
  inRect,
  moved,
  rectOf,
  select,
  type Bounds,
  type Move,
  type Place,
  type Rect,
  type Selection,
} from './selection';
export { fromTsv, layOver, toTsv } from './clipboard';
export { fillRight } from './fill';
export { matchBlock, matchRows, type MatchedBlock, type NamedRows } from './matched';
