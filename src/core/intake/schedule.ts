import { weekdayOf } from '@/core/calendar';
import type { Schedule } from '@/core/model';
import { assertNever } from '@/core/assertNever';

/** Whole minutes of local civil time since 1970-01-01 00:00: day number × 1440 + minutes of the day. */
export type LocalMinute = number;

const DAY = 1440;
/** After a failed attempt the next waits so long, lest a service that is down be asked every minute. */
const RETRY = 15;

/**
 * Whether a pull is due: a run that fell while the app was closed is due as soon as it is open again, once, however
 * many were missed. `lastGood` is the last pull that worked (or the connecting), `lastTry` the last attempt.
 */
export function isPullDue(
  schedule: Schedule,
  lastGood: LocalMinute,
  lastTry: LocalMinute,
  now: LocalMinute,
): boolean {
  if (lastTry > lastGood && now - lastTry < RETRY) return false;
  switch (schedule.every) {
    case 'never':
      return false;
    case 'hours':
      return now - lastGood >= schedule.hours * 60;
    case 'days': {
      const [hours = 0, minutes = 0] = schedule.at.split(':').map(Number);
      const today = Math.floor(now / DAY);
      for (let d = today; d > today - 8; d--) {
        const moment = d * DAY + hours * 60 + minutes;
        if (moment <= now && schedule.weekdays.includes(weekdayOf(d))) return lastGood < moment;
      }
      return false;
    }
    default:
      return assertNever(schedule);
  }
}
