import type { ReactNode } from 'react';
import { Ruler, type RulerProps } from './Ruler';
import classes from './StageHead.module.css';

/** The band under the header on every screen: what one looks at, and the ruler. */
export function StageHead({
  title,
  subtitle,
  ruler,
}: {
  readonly title: ReactNode;
  readonly subtitle: ReactNode;
  readonly ruler: RulerProps | null;
}) {
  return (
    <div className={classes.band}>
      <div className={classes.words}>
        <h1 className={`title ${classes.title}`}>{title}</h1>
        <div className={classes.subtitle}>{subtitle}</div>
      </div>
      {ruler && ruler.periods.length > 0 && <Ruler {...ruler} />}
    </div>
  );
}
