'use client';

import { useContext, type ReactNode } from 'react';
import { Ruler, type RulerProps } from './Ruler';
import { UnitContext } from './unit';
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
  const unit = useContext(UnitContext);
  return (
    <div className={classes.band}>
      <div className={classes.words}>
        <h1 className={`title ${classes.title}`}>{title}</h1>
        <div className={classes.subtitle}>
          {unit && <b>{unit} · </b>}
          {subtitle}
        </div>
      </div>
      {ruler && ruler.periods.length > 0 && <Ruler {...ruler} />}
    </div>
  );
}
